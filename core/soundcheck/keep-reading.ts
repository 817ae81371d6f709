import type { Gear } from '../gear'
import type { Measurement, Reading } from '../model'
import type { Session } from '../session'
import { moved, isBus } from '../model'
import { formatDecimal } from '../units'
import { withInput, withMeasuredInput } from '../uncertainty/edit-input'
import type { InputPlace } from '../uncertainty/input'
import { readAt, worthOf } from '../uncertainty/known-readings'
import type { Effect } from '../uncertainty/linear'
import { propagate } from '../uncertainty/uncertainty'
import { PerturbedEvaluations } from '../uncertainty/perturbed-evaluations'

/** Slopes below this say that a ceiling or a curve holds the level: a reading there tells nothing of the source. */
const HELD = 0.2

export type KeptReading = { ok: true; session: Session; difference: number } | { ok: false; message: string }

/**
 * A reading kept: what it is laid to – the source, which is known least, unless another box is named – is as much more or less as
 * was read, its value becomes a measured one, and the reading ties what is known together.
 * @param day of the measurement
 * @param onto path of the input that takes the difference; the source’s level where it is left out
 * @returns the session with it, or in words why it tells nothing
 */
export function keepReading(session: Session, reading: Reading, day: string, onto?: string): KeptReading {
  const doubts = propagate(session)
  const { evaluations, linear } = doubts
  const place = readAt(evaluations, reading)
  const own = linear.get(reading.strip)
  if (!place || !own) return refused('That meter is gone from that stage. Take the reading again.')
  const path = onto ?? sourceLevel(session, reading.strip)
  if (path === null) return refused('No source’s level is known here. Read it on a strip that begins with one.')
  const effect = own.effects.find(({ input }) => input.path === path)
  const step = effect?.slope[place.at] ?? 0
  if (effect && effect.input.doubt.of === 'value' && Math.abs(step) < HELD * effect.input.doubt.u)
    return refused(
      'A ceiling or a limiter before that meter holds the level, so the reading says nothing about the source. Turn down, and read again.',
    )
  const difference = reading.value - (reading.expected ?? place.now)
  const before = effect?.input ?? certainLevel(session, path)
  if (before?.place.in !== 'gear')
    return refused('The reading is attributed to something that no device stores. Measure it on Bench.')
  const value = solvedValue(session, reading, before.place, before.value, place.now + difference, step)
  if (value === null) return refused('No value of it gives that reading. Look at the pad, 48 V and the input first.')
  const measured: Measurement = {
    value: Math.round(100 * value) / 100,
    on: day,
    method: `Read on the meter, ${formatDecimal(reading.value, 1)} ${reading.unit}`,
    spread: { value: round(leftOf(own.effects, place.at, worthOf(reading), effect)), is: 'sd' },
  }
  const kept: Reading = { ...reading, expected: reading.expected ?? round(place.now), kept: true }
  return {
    ok: true,
    difference,
    session: withReading(expectedAnew(session, withMeasuredInput(session, before.place, measured)), kept),
  }
}

const refused = (message: string): KeptReading => ({ ok: false, message })
const round = (value: number) => Math.round(1000 * value) / 1000

/** Looks at one meter that a session keeps: the latest. */
const MOST_REPEATS = 20

/** A reading among the others: looks at the same meter stay, with their times; what an id names already is replaced. */
export function withReading(session: Session, reading: Reading): Session {
  const others = (session.soundcheck?.readings ?? []).filter(({ id }) => id !== reading.id)
  const isRepeat = (each: Reading) =>
    each.strip === reading.strip && each.stage === reading.stage && each.reads === reading.reads
  const tooMany = others.filter(isRepeat).slice(0, -MOST_REPEATS + 1)
  const dropped = others.filter(isRepeat).length >= MOST_REPEATS ? new Set(tooMany) : new Set<Reading>()
  const readings = [...others.filter((each) => !dropped.has(each)), reading]
  return { ...session, soundcheck: { ...session.soundcheck, readings } }
}

/**
 * The value of an input at which a meter shows what was read, solved by evaluating: a compressor on the way lets a decibel at the source
 * be less than one at the meter. @returns `null` where none does
 */
function solvedValue(
  session: Session,
  reading: Reading,
  place: Extract<InputPlace, { in: 'gear' }>,
  now: number,
  wanted: number,
  slope: number,
): number | null {
  const shows = (value: number) =>
    readAt(new PerturbedEvaluations(withInput(session, place, value)), reading)?.now ?? NaN
  let [value, step] = [now, place.spec === 'sensitivity' ? now * 0.01 : 0.1]
  if (slope < 0) step = -step
  for (let round = 0; round < SOLVING_ROUNDS; round++) {
    const missing = wanted - shows(value)
    if (Math.abs(missing) < SOLVED_DB) return value
    const rise = shows(value + step) - shows(value)
    if (!(Math.abs(rise) > 1e-9)) return null
    // No step is larger than the meter's own difference could be a hundredfold: flat places are left in bounds.
    value += Math.max(-60, Math.min(60, missing / rise)) * step
  }
  return null
}
const SOLVING_ROUNDS = 30
const SOLVED_DB = 0.005

/** What the other readings were compared with, moved by what has just become better known: nothing is explained twice. */
function expectedAnew(before: Session, after: Session): Session {
  const readings = after.soundcheck?.readings ?? []
  if (readings.every(({ expected }) => expected === undefined)) return after
  const [was, is] = [propagate(before).evaluations, propagate(after).evaluations]
  return {
    ...after,
    soundcheck: {
      ...after.soundcheck,
      readings: readings.map((each) => {
        const [from, to] = [readAt(was, each), readAt(is, each)]
        return each.expected === undefined || !from || !to
          ? each
          : { ...each, expected: round(each.expected + to.now - from.now) }
      }),
    },
  }
}

/** Path of the level of what a strip begins with; `null` on a bus, or where it has none. */
function sourceLevel(session: Session, stripId: string): string | null {
  const strip = session.strips.find(({ id }) => id === stripId)
  const source = session.gear.find(({ id }) => id === strip?.stages[0]?.gear)
  return !(strip && isBus(strip)) && isSource(source) ? `gear.${source.id}.level` : null
}

interface Source {
  id: string
  specs: { level: number }
  measured?: { level?: Measurement | undefined } | undefined
}
const isSource = (gear: Gear | undefined): gear is Gear & Source =>
  gear !== undefined && 'specs' in gear && 'level' in gear.specs

/** A level that is known for certain is no uncertain input; it can be measured all the same. */
function certainLevel(session: Session, path: string) {
  const source = session.gear.find((each) => path === `gear.${each.id}.level`)
  if (!isSource(source)) return null
  const place = { in: 'gear', gear: source.id, spec: 'level' } as const
  return { value: source.measured?.level?.value ?? source.specs.level, place }
}

/** What is left of the input’s own uncertainty, in its unit: the others, and the meter, may have made part of the difference. */
function leftOf(effects: readonly Effect[], at: number, worth: number, own: Effect | undefined): number {
  const others = Math.sqrt(
    effects.reduce((sum, each) => (each === own ? sum : sum + (each.slope[at] as number) ** 2), worth ** 2),
  )
  if (!own) return others
  const step = own.slope[at] as number
  const part = Math.sqrt(1 / (1 + (step / others) ** 2))
  return Math.abs(moved(own.input.value, own.input.doubt, part) - own.input.value)
}
