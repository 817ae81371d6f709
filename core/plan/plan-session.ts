import { gearById, resolveStrip } from '../chain/resolve'
import type { ResolvedInput } from '../chain/resolve'
import type { SettableGain } from '../chain/settable-gain'
import { isSetFor, settableGain } from '../chain/settable-gain'
import { aimError, readingOf } from '../chain/target-reading'
import type { Evaluation, StripEvaluation } from '../evaluation/evaluate-session'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { Session, SettingName, TargetReading, TargetWindow } from '../session'
import { applyChanges, targetWindow } from '../session'
import { db, formatDecimal } from '../units'

export interface PlannedSetting {
  strip: string
  stage: string
  setting: SettingName
  from: number
  to: number
  reason: string
}

export interface Plan {
  /** Only what changes; empty where everything is as planned. */
  settings: PlannedSetting[]
  /** The session as it would be with them. */
  evaluation: Evaluation
}

/**
 * Settings that put what the target reads at what it aims at: the middle of its window, or −1 dBFS with the surge
 * for the limited stream. The gain is rounded down to its step and held inside its range; the reason says so.
 *
 * Planning a planned session changes nothing.
 */
export function planSession(session: Session): Plan {
  const target = targetWindow(session.target)
  const gear = gearById(session)
  const now = evaluateSession(session)
  const settings = session.strips.flatMap((strip, i) => {
    const input = resolveStrip(strip, gear).at(-1)
    const evaluated = now.strips[i]
    return input?.kind === 'interface' && evaluated ? planGain(strip.id, input, evaluated, target) : []
  })
  return { settings, evaluation: settings.length === 0 ? now : evaluateSession(applyChanges(session, settings)) }
}

function planGain(strip: string, input: ResolvedInput, evaluated: StripEvaluation, target: TargetWindow): PlannedSetting[] {
  const point = evaluated.points.at(-1)
  if (!point) return []
  const wanted = db(input.gain - aimError(point, target))
  if (isSetFor(input.specs, wanted, input.gain)) return []
  const settable = settableGain(input.specs, wanted)
  const reached = readingOf(point, target.reads) + settable.gain - input.gain
  return [{
    strip, stage: input.id, setting: 'gain', from: input.gain, to: settable.gain,
    reason: `${READS[target.reads]} then reads ${formatDecimal(reached, 1)} dBFS; ${because(settable, target)}.`,
  }]
}

const READS: Record<TargetReading, string> = { 'average': 'The average', 'peak': 'The loudest rehearsed peak', 'surge-peak': 'The peak with the surge' }

function because({ limit }: SettableGain, { aim }: TargetWindow): string {
  const aimed = `the target aims at ${formatDecimal(aim, 1)}`
  if (limit === 'lowest') return `${aimed}, but this is the lowest gain of the input`
  if (limit === 'highest') return `${aimed}, but this is the highest gain of the input`
  return `${aimed}, rounded down to the gain’s step`
}
