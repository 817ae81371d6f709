import type { NoiseName } from '../gear/two-port'
import { stripControls } from '../chain/gain-control'
import { EIN_THERMAL, einExcess } from '../gear/equivalent-input-noise'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import { powerSum } from '../numeric/power'
import type { Gear } from '../gear'
import { isInterface, isSoundSource } from '../gear'
import type { Strip } from '../model'
import type { Session } from '../session'
import { applyChanges } from '../edits'
import { roomInForce } from '../model'
import { dbSpl, dbu, formatShort } from '../units'
import { alone, ofStrip } from './alone'
import { evaluateSession } from './evaluate-session'

/** One noise at the end of a strip, and what it would be as a sound in the room. */
export interface BudgetLine {
  stage: string
  name: NoiseName
  gear: string
  /** On a bus the name of the strip that it is from; empty for the bus’s own. */
  from: string
  level: number
  share: number
  /** As loud as this sound at the source's place would be, dB SPL (A); `null` where the strip begins on a wire. */
  inAir: number | null
}

/** A change that could be made, and the signal-to-noise ratio that it gains. */
export interface Help {
  words: string
  /** dB; below zero it makes matters worse. */
  snr: number
}

export interface NoiseBudget {
  lines: BudgetLine[]
  total: number | null
  helps: Help[]
}

/** Every noise of a strip where it is recorded and referred back to the air, and what would help against it. */
export function noiseBudget(session: Session, stripId: string): NoiseBudget {
  const strip = session.strips.find((each) => each.id === stripId)
  if (!strip) return { lines: [], total: null, helps: [] }
  const own = alone(session, strip)
  const evaluated = ofStrip(evaluateSession(own), stripId)
  const [first, end] = [evaluated?.points[0], evaluated?.points.at(-1)]
  if (!evaluated || !first || !end) return { lines: [], total: null, helps: [] }
  const toAir = first.unit === 'dBSPL' ? first.average - end.average : null
  const names = new Map(
    own.strips.flatMap(({ stages }) =>
      stages.map((stage) => [stage.id, session.gear.find((item) => item.id === stage.gear)?.name ?? '']),
    ),
  )
  const stripNames = new Map(own.strips.map(({ id, name }) => [id, name]))
  return {
    lines: evaluated.noise.map(({ strip, stage, name, level, share }) => ({
      stage,
      name,
      gear: name === 'room' ? '' : (names.get(stage) ?? ''),
      from: strip === stripId ? '' : (stripNames.get(strip) ?? ''),
      level,
      share,
      inAir: toAir === null ? null : level + toAir,
    })),
    total: end.noise,
    helps: helps(own, strip, end.snr),
  }
}

/** A gain smaller than this reads as 0.0 dB. */
const WORTH_SAYING = 0.05

/** What 1 dB, half the distance and 3 dB are worth here. */
function helps(session: Session, strip: Strip, now: number | null): Help[] {
  if (now === null) return []
  const gain = (changed: Session) => {
    const snr = ofStrip(evaluateSession(changed), strip.id)?.points.at(-1)?.snr
    return snr == null ? null : snr - now
  }
  const stages = stagesOf(session, strip)
  const room = roomInForce(session.room)
  const tried: { words: string; session: Session | null }[] = [
    ...stripControls(stages).map((control) => ({
      words: `1 dB more ${control.setting} at ${stages.find((stage) => stage.id === control.stage)?.gear.name ?? ''}`,
      session:
        control.value + 1 > control.range.gainMax
          ? null
          : applyChanges(session, [
              { strip: strip.id, stage: control.stage, setting: control.setting, to: control.value + 1 },
            ]),
    })),
    ...stages.flatMap((stage) =>
      isSoundSource(stage)
        ? [
            {
              words: `half the distance, ${formatShort(stage.distance / 2)} m`,
              session: applyChanges(session, [
                { strip: strip.id, stage: stage.id, setting: 'distance', to: stage.distance / 2 },
              ]),
            },
          ]
        : [],
    ),
    {
      words: 'a room 3 dB quieter',
      session:
        room.ambient === undefined
          ? null
          : { ...session, room: { ...room, measured: undefined, ambient: dbSpl(room.ambient - 3) } },
    },
    ...stages.flatMap((stage) => {
      const better = withBetterEin(session.gear, stage)
      return better
        ? [{ words: `a preamp 3 dB better than ${stage.gear.name}`, session: { ...session, gear: better } }]
        : []
    }),
  ]
  return tried
    .flatMap(({ words, session: changed }) => {
      const snr = changed && gain(changed)
      return snr === null || Math.abs(snr) < WORTH_SAYING ? [] : [{ words, snr }]
    })
    .sort((a, b) => b.snr - a.snr)
}

/** The gear with one amplifier's own noise 3 dB lower, printed and measured alike; `null` where it has none. */
function withBetterEin(gear: readonly Gear[], stage: ResolvedStage): Gear[] | null {
  if (!('specs' in stage) || !('ein' in stage.specs) || stage.specs.ein === undefined) return null
  // What the amplifier adds falls by 3 dB; the EIN holds its test resistor's noise besides, which does not.
  const excess = einExcess({ ...stage.specs, ein: stage.specs.ein })
  if (excess === null) return null
  const ein = dbu(powerSum([{ level: excess - 3 }, { level: EIN_THERMAL }]) ?? 0)
  const quieter = <T extends { specs: object; measured?: object | undefined }>(owner: T): T => ({
    ...owner,
    specs: { ...owner.specs, ein, einWeighting: 'A', einSource: undefined },
    measured: owner.measured && { ...owner.measured, ein: undefined },
  })
  return gear.map((item) => {
    if (item.id !== stage.gear.id) return item
    if (!isInterface(item)) return quieter(item as never)
    return {
      ...item,
      inputs: item.inputs.map((input) =>
        isInterface(stage) && input.id === stage.input.id && input.type !== 'digital' ? quieter(input) : input,
      ),
    }
  })
}
