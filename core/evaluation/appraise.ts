import type { Contribution, Point } from '../chain/cascade'
import { cascade, tightest } from '../chain/cascade'
import { compileStrip } from '../chain/compile'
import type { StripView } from '../chain/findings'
import { chainFindings } from '../chain/findings'
import { stripControls } from '../chain/gain-control'
import { outputClasses } from '../chain/level-class'
import type { PhantomUse } from '../chain/phantom'
import { phantomUses } from '../chain/phantom'
import type { ResolvedStage } from '../chain/resolve'
import { gearById, resolveStrip } from '../chain/resolve'
import { readingPlace, windowFor } from '../chain/target-window'
import { timingFindings } from '../latency/findings'
import type { Route } from '../latency/routes'
import { routes } from '../latency/routes'
import type { Draft, Session, Strip } from '../session'
import type { Db } from '../units'
import { routeInputs } from './route-inputs'

/** A strip as it is set, with everything that is found about it, the mends not yet tried. */
export interface Appraised {
  id: string
  points: Point[]
  noise: Contribution[]
  drafts: Draft[]
  tightest: { stage: string; headroom: Db } | null
  latency: Route[]
}

export interface Appraisal {
  readonly strips: readonly Appraised[]
  readonly phantom: readonly PhantomUse[]
}

/** Every level, headroom, noise and delay of a session as it is set, and what is to be seen to. */
export function appraise(session: Session): Appraisal {
  const gear = gearById(session)
  const resolved = session.strips.map((strip) => resolveStrip(strip, gear))
  const phantom = phantomUses(session, resolved)
  return {
    phantom,
    strips: session.strips.map((strip, i) => appraiseStrip(session, strip, resolved[i] ?? [], phantom)),
  }
}

/** One strip of it, with the phantom power of all. */
export function appraiseStrip(
  session: Session,
  strip: Strip,
  stages: ResolvedStage[],
  phantom: readonly PhantomUse[],
): Appraised {
  const { programme, twoPorts } = compileStrip(stages, session)
  const { points, noise } = cascade(programme, twoPorts)
  const timing = routeInputs(session, strip, stages)
  const drafts = chainFindings(view(session, strip, stages, phantom, points, noise))
  return {
    id: strip.id,
    points,
    noise,
    drafts: timing ? [...drafts, ...timingFindings(timing.stage, timing.inputs)] : drafts,
    tightest: tightest(points),
    latency: timing ? routes(timing.inputs) : [],
  }
}

function view(
  session: Session,
  strip: Strip,
  stages: ResolvedStage[],
  phantom: readonly PhantomUse[],
  points: Point[],
  noise: Contribution[],
): StripView {
  const target = windowFor(session.target, stages)
  return {
    session,
    strip,
    stages,
    points,
    noise,
    controls: stripControls(stages),
    classes: outputClasses(stages),
    target,
    place: readingPlace(stages, target),
    phantom,
    own: phantom.filter((use) => use.strip === strip.id),
  }
}

/** A strip as the checks look at it. */
export function viewOf(session: Session, stripId: string): StripView | null {
  const gear = gearById(session)
  const resolved = session.strips.map((strip) => resolveStrip(strip, gear))
  const at = session.strips.findIndex((strip) => strip.id === stripId)
  const [strip, stages] = [session.strips[at], resolved[at]]
  if (!strip || !stages) return null
  const { programme, twoPorts } = compileStrip(stages, session)
  const { points, noise } = cascade(programme, twoPorts)
  return view(session, strip, stages, phantomUses(session, resolved), points, noise)
}
