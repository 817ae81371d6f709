import type { GainControl } from '../chain/gain-control'
import { stripControls } from '../chain/gain-control'
import { stagesOf } from '../resolved/resolve-session'
import type { Evaluation } from '../evaluation/evaluate-session'
import type { Loudspeaker } from '../gear'
import { isLoudspeaker } from '../gear'
import type { Session } from '../session'
import type { Strip } from '../model'
import { isBus } from '../model'

/** A loudspeaker bus, and what it takes to be as loud as is wished. */
export interface LoudspeakerSetting {
  bus: Strip
  band: Loudspeaker['band']
  /** Average at the listener now, dB SPL. */
  average: number
  peak: number
  /** Peak to the nearer of its limits, dB. */
  headroom: number | null
  /** The control that it is set by, and where to; `null` where its range or its limits do not allow it. */
  control: GainControl | null
  to: number | null
  /** What keeps it from getting there. */
  short: 'range' | 'limit' | 'no control' | null
}

const ORDER: Record<Loudspeaker['band'], number> = { sub: 0, full: 1, top: 2 }

/**
 * How loudspeakers are set, in the order in which it is done: the subwoofer to the highest level that is wanted, then full-range ones
 * and tops to match (common practice, no source). Each by the last control before it, mostly its own knob.
 */
export function loudspeakerSettings(session: Session, evaluation: Evaluation, wanted: number): LoudspeakerSetting[] {
  return session.strips
    .flatMap((bus, i): LoudspeakerSetting[] => {
      const stages = stagesOf(session, bus)
      const last = stages.at(-1)
      const end = evaluation.strips[i]?.points.at(-1)
      if (!isBus(bus) || !isLoudspeaker(last) || !end) return []
      const control = stripControls(stages).findLast((each) => !each.locked) ?? null
      const by = wanted - end.average
      const to = control && control.value + by
      const outOfRange = !control || to === null || to < control.range.gainMin || to > control.range.gainMax
      const limited = end.headroom !== null && by > end.headroom
      const short = !control ? 'no control' : limited ? 'limit' : outOfRange ? 'range' : null
      return [
        {
          bus,
          band: last.gear.band,
          average: end.average,
          peak: end.peak,
          headroom: end.headroom,
          control,
          to: short === null ? to : null,
          short,
        },
      ]
    })
    .sort((a, b) => ORDER[a.band] - ORDER[b.band])
}
