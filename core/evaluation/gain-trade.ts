import { lastControl, stripControls } from '../chain/gain-control'
import { stagesOf } from '../resolved/resolve-session'
import type { Session } from '../session'
import { applyChanges } from '../edits'
import { alone, ofStrip } from './alone'
import { evaluateSession } from './evaluate-session'

export interface GainTrade {
  /** How much more gain was tried: the wished, or what the range still has. */
  gain: number
  /** What it adds to the signal-to-noise ratio, dB. */
  snr: number
  /** What it takes from the headroom at the recorder, dB. */
  headroom: number
}

/** Less than this is no gain to be had, dB. */
const LEAST = 0.1

/**
 * What more of the last gain of a strip would buy and cost.
 * @returns `null` where the range has no more, or the strip has no gain.
 */
export function gainTrade(session: Session, stripId: string, wished: number): GainTrade | null {
  const strip = session.strips.find((each) => each.id === stripId)
  const control = strip && lastControl(stripControls(stagesOf(session, strip)))
  if (!strip || !control) return null
  const gain = Math.min(wished, control.range.gainMax - control.value)
  if (gain < LEAST) return null
  const now = alone(session, strip)
  const louder = applyChanges(now, [
    { strip: stripId, stage: control.stage, setting: control.setting, to: control.value + gain },
  ])
  const [before, after] = [now, louder].map((each) => ofStrip(evaluateSession(each), stripId)?.points.at(-1))
  if (before?.snr == null || after?.snr == null || before.headroom === null || after.headroom === null) return null
  return { gain, snr: after.snr - before.snr, headroom: before.headroom - after.headroom }
}
