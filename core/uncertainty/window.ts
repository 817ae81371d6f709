import type { GainControl } from '../chain/gain-control'
import { stripControls } from '../chain/gain-control'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import { readingPlace, windowFor } from '../chain/target-window'
import type { Session } from '../session'
import type { Strip, Target, TargetWindow } from '../model'
import { isBus } from '../model'
import { db } from '../units'
import { uncertainInputs } from './inputs'
import { placeOf } from './figures'
import { KnownReadings, slopesOf } from './known-readings'
import { linearised } from './linear'
import { PerturbedEvaluations } from './perturbed-evaluations'

/** The window that a target stands for on a strip; one by risk follows from how well the strip’s level is known. */
export const windowOf = (
  session: Session,
  strip: Strip,
  stages: readonly ResolvedStage[],
  target: Target = session.target,
): TargetWindow => windowFor(target, stages, () => surgeUncertainty(session, strip))

/** Only to find the place where it is read. */
const BY_RISK: TargetWindow = { low: 0, high: 0, aim: 0, reads: 'surge-peak' }

/**
 * Standard uncertainty of the peak with the surge where a strip’s target is read, dB. Its own gains count as fully down, so that
 * nothing is held by a ceiling or a curve that another gain would not meet: the same whatever is set, and the cautious case. What
 * readings tell is taken off.
 * Example: worked example 1: 3.79 dB.
 */
export function surgeUncertainty(session: Session, strip: Strip): number {
  const stages = stagesOf(session, strip)
  const place = readingPlace(stages, BY_RISK)
  if (!place) return 0
  const quiet = withGainsDown(strip, stages, place.meter === 'file' ? ['analogue', 'digital'] : ['analogue'])
  const strips = isBus(strip) ? session.strips.map((each) => (each.id === strip.id ? quiet : each)) : [quiet]
  const evaluations = new PerturbedEvaluations({ ...session, strips })
  const reaching = uncertainInputs(evaluations.session).filter((input) => evaluations.reach(input).has(strip.id))
  const linear = linearised(evaluations, reaching)
  const own = linear.get(strip.id)
  if (!own) return 0
  const at = placeOf(place.index, 'surgePeak')
  const left = KnownReadings.of(evaluations.session, evaluations, linear).left(slopesOf(own.effects, at))
  return Math.sqrt(
    Math.max(
      0,
      [...left.values()].reduce((sum, each) => sum + each, 0),
    ),
  )
}

function withGainsDown(
  strip: Strip,
  stages: readonly ResolvedStage[],
  worked: readonly GainControl['domain'][],
): Strip {
  const controls = stripControls(stages)
  return {
    ...strip,
    stages: strip.stages.map((stage) => {
      const own = controls.filter((each) => each.stage === stage.id && worked.includes(each.domain))
      const down = Object.fromEntries(own.map(({ setting, range }) => [setting, db(range.gainMin)]))
      return own.length === 0 ? stage : { ...stage, settings: { ...stage.settings, ...down } }
    }),
  }
}
