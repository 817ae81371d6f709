import { isDeskChannel, isDigitalInput, isInterface } from '../gear'
import type { GainControl } from '../chain/gain-control'
import { lastControl, stripControls } from '../chain/gain-control'
import type { NoiseName } from '../gear/two-port'
import type { PhantomUse } from '../chain/phantom'
import { phantomUses, usesOf } from '../chain/phantom'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import { USUAL_ZERO, readingPlace, windowFor } from '../chain/target-window'
import type { KnownTime } from '../latency/route-words'
import type { Session } from '../session'
import type { Strip, Target, TargetWindow } from '../model'
import { findingTitles } from '../checks/finding-titles'
import type { Severity } from '../checks/finding'
import type { Db } from '../units'
import { greatestNoise } from './verdict'
import type { Evaluation, StripEvaluation } from './evaluate-session'

/** One strip in the overview of all. */
export interface MixRow {
  strip: Strip
  evaluated: StripEvaluation
  /** Where it comes into the recorder: the unit’s input, and the number by which the recorder counts it. */
  input: { unit: string; port: string; number: number } | null
  /** The gain that sets its level: behind a desk the head gain of its channel, which is set by PFL. */
  control: GainControl | null
  /** Its pad, and whether it is in. */
  pad: { stage: string; in: boolean } | null
  /** Its 48 V: the stage of the switch, whether it is on, and with whom it shares the switch. */
  phantom: { stage: string; on: boolean; bank: string | null; switchId: string } | null
  /** Peak on the desk’s meter at PFL, dB over its zero mark; `null` without a desk channel. */
  pfl: Pfl | null
  /** Peak at the recorder, dBFS; `null` where it reaches none by itself. */
  recorded: number | null
  /** The target’s window there; `null` where nothing reads it, and for one by risk, which is another on every strip. */
  target: TargetWindow | null
  floor: { name: NoiseName; share: number } | null
  tightest: { place: string; headroom: Db } | null
  roundTrip: KnownTime | null
  /** The gravest of what is to be seen to, in a few words. */
  needs: { severity: Severity; words: string } | null
}

/** A channel’s peak at PFL, against the desk’s zero mark. */
export interface Pfl {
  /** dB over the zero mark. */
  peak: number
  /** The level at the zero mark, dBu. */
  zero: number
  /** The desk’s sheet does not tell the zero mark. */
  assumed: boolean
}

/** Every strip of a session in one line. */
export function mixRows(session: Session, evaluation: Evaluation): MixRow[] {
  const phantom = phantomUses(session)
  return session.strips.flatMap((strip, i) => {
    const evaluated = evaluation.strips[i]
    return evaluated ? [rowOf(session.target, strip, stagesOf(session, strip), evaluated, phantom)] : []
  })
}

function rowOf(
  target: Target,
  strip: Strip,
  stages: readonly ResolvedStage[],
  evaluated: StripEvaluation,
  phantom: readonly PhantomUse[],
): MixRow {
  const { points, noise, tightest, latency, findings } = evaluated
  const at = stages.findLastIndex((stage) => isInterface(stage) || isDigitalInput(stage))
  const unit = stages[at]
  const gains = stripControls(stages).filter((each) => !each.isFader)
  const head = gains.filter(({ stage }) => isDeskChannel(stages.find(({ id }) => id === stage)))
  const greatest = greatestNoise(noise)
  return {
    strip,
    evaluated,
    input: isInterface(unit) || isDigitalInput(unit) ? inputOf(unit) : null,
    control: lastControl(head) ?? lastControl(gains) ?? lastControl(stripControls(stages)),
    pad: padOf(stages),
    phantom: phantomOf(usesOf(phantom, strip.id)),
    pfl: pflOf(stages, evaluated),
    recorded: points[at]?.peak ?? null,
    target: targetAt(target, stages),
    floor: greatest ?? null,
    tightest: tightest
      ? { place: stages.find(({ id }) => id === tightest.stage)?.gear.name ?? '', headroom: tightest.headroom }
      : null,
    roundTrip: latency.find(({ route }) => route === strip.monitor.route) ?? null,
    needs: findings[0] ? { severity: findings[0].severity, words: findingTitles[findings[0].code] } : null,
  }
}

function targetAt(target: Target, stages: readonly ResolvedStage[]): TargetWindow | null {
  if (typeof target === 'object' && 'risk' in target) return null
  const window = windowFor(target, stages, () => 0)
  const place = readingPlace(stages, window)
  return place === null || place.meter === 'pfl' ? null : window
}

function inputOf({ gear, input }: Extract<ResolvedStage, { kind: 'interface' | 'digital-input' }>): MixRow['input'] {
  return { unit: gear.name, port: input.id, number: gear.inputs.findIndex(({ id }) => id === input.id) + 1 }
}

function padOf(stages: readonly ResolvedStage[]): MixRow['pad'] {
  const stage = stages.find((each) => 'specs' in each && 'pad' in each.specs && each.specs.pad > 0)
  return stage ? { stage: stage.id, in: stage.settings.pad ?? false } : null
}

function phantomOf(own: readonly PhantomUse[]): MixRow['phantom'] {
  const use = own.find(({ supply }) => supply?.can)
  if (!use?.supply) return null
  const { stage, on, bank, switchId } = use.supply
  return { stage: stage.id, on, bank: bank ?? null, switchId }
}

/** What the desk shows of a channel before its fader, against its zero mark. */
function pflOf(stages: readonly ResolvedStage[], { points }: StripEvaluation): Pfl | null {
  const index = stages.findLastIndex((stage) => isDeskChannel(stage))
  const channel = stages[index]
  const point = points[index]
  if (!isDeskChannel(channel) || !point) return null
  const fader = channel.settings.tap === 'pre' ? 0 : (channel.settings.fader ?? 0)
  const zero = channel.specs.zero ?? USUAL_ZERO
  return {
    peak: point.peak - fader - zero,
    zero,
    assumed: channel.specs.zero === undefined || (channel.gear.assumed?.includes('zero') ?? false),
  }
}
