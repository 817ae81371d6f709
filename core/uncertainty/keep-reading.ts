import type { Gear, Measurement, Reading, Session } from '../session'
import { inForce, isBus, readingWorth, standardUncertainty, spreadOf } from '../session'
import { formatDecimal } from '../units'
import { readAt, slopesOf } from './known-readings'
import { doubtsOf } from './uncertainty'

/** Slopes below this say that a ceiling or a curve holds the level: a reading there tells nothing of the source. */
const HELD = 0.2

/**
 * A reading kept: the source is as much louder or quieter as was read – it is what is known least –, its level becomes a measured
 * one, and the reading ties what is known together.
 * @returns the session with it, or in words why it tells nothing
 */
export function keepReading(
  session: Session,
  reading: Reading,
  day: string,
): { ok: true; session: Session; difference: number } | { ok: false; message: string } {
  const { walks, linear } = doubtsOf(session)
  const strip = session.strips.find(({ id }) => id === reading.strip)
  const at = readAt(walks, reading.strip, reading.stage, reading.reads)
  const own = linear.get(reading.strip)
  const source = strip && !isBus(strip) && session.gear.find(({ id }) => id === strip.stages[0]?.gear)
  if (!strip || at === null || !own || !isSource(source))
    return { ok: false, message: 'No source’s level is known here. Read it on a strip that begins with one.' }
  const path = `gear.${source.id}.level`
  const slopes = slopesOf(own.effects, at)
  const effect = own.effects.find(({ input }) => input.path === path)
  const slope = (slopes.get(path) ?? 0) / (effect?.input.doubt.u || 1)
  if (effect && slope < HELD)
    return {
      ok: false,
      message:
        'The level is held by a ceiling or a limiter before that meter, so it tells nothing of the source. Turn down, and read again.',
    }
  const difference = reading.value - (own.values[at] as number)
  const before = inForce<{ level: number }>(source).level
  const level = Math.round(100 * (before + difference)) / 100
  const worth = reading.spread ?? readingWorth[reading.reads]
  const measured: Measurement = {
    value: level,
    on: day,
    method: `Read on the meter, ${formatDecimal(reading.value, 1)} ${reading.unit}`,
    spread: { value: Math.round(1000 * leftOf(slopes, path, worth, source.measured)) / 1000, is: 'sd' },
  }
  return {
    ok: true,
    difference,
    session: {
      ...session,
      gear: session.gear.map((each) =>
        each.id === source.id ? ({ ...source, measured: { ...source.measured, level: measured } } as Gear) : each,
      ),
      soundcheck: {
        ...session.soundcheck,
        readings: [
          // A newer look at the same meter takes the place of the older one.
          ...(session.soundcheck?.readings ?? []).filter(
            (each) => each.strip !== reading.strip || each.stage !== reading.stage || each.reads !== reading.reads,
          ),
          reading,
        ],
      },
    },
  }
}

interface Source {
  id: string
  specs: { level: number }
  measured?: { level?: Measurement | undefined } | undefined
}
const isSource = (gear: Gear | false | undefined): gear is Gear & Source =>
  gear !== undefined && gear !== false && 'specs' in gear && 'level' in gear.specs

/** What is left of the level’s own uncertainty, dB: the other inputs may have made part of the difference. */
function leftOf(
  slopes: ReadonlyMap<string, number>,
  path: string,
  worth: number,
  measured: Source['measured'],
): number {
  const spread = measured?.level && spreadOf(measured.level)
  const own = slopes.get(path) ?? (spread ? standardUncertainty(spread) : 0)
  const others = [...slopes].reduce((sum, [each, slope]) => (each === path ? sum : sum + slope ** 2), worth ** 2)
  return own === 0 ? Math.sqrt(others) : Math.sqrt(1 / (1 / own ** 2 + 1 / others))
}
