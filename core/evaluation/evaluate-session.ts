import type { Contribution, Point } from '../chain/cascade'
import { cascade, tightest } from '../chain/cascade'
import { compileStrip } from '../chain/compile'
import { chainFindings } from '../chain/findings'
import { stripControls } from '../chain/gain-control'
import { outputClasses } from '../chain/level-class'
import type { PhantomUse } from '../chain/phantom'
import { phantomUses } from '../chain/phantom'
import type { ResolvedStage } from '../chain/resolve'
import { gearById, resolveStrip } from '../chain/resolve'
import { timingFindings } from '../latency/findings'
import type { Route } from '../latency/routes'
import { routes } from '../latency/routes'
import type { Finding, Session, Severity, Strip } from '../session'
import { targetWindow } from '../session'
import type { Db } from '../units'
import { routeInputs } from './route-inputs'

export interface StripEvaluation {
  id: string
  /** One for every stage, at its output. */
  points: Point[]
  /** Every noise at the strip's last point, the greatest first. */
  noise: Contribution[]
  /** The gravest first. */
  findings: Finding[]
  tightest: { stage: string; headroom: Db } | null
  latency: Route[]
}

export interface Evaluation {
  strips: StripEvaluation[]
}

/**
 * Every level, headroom, noise, delay and finding of a session as it is set.
 * A pure function of a session that was read; it throws for none.
 */
export function evaluateSession(session: Session): Evaluation {
  const gear = gearById(session)
  const resolved = session.strips.map((strip) => resolveStrip(strip, gear))
  const phantom = phantomUses(session, resolved)
  return { strips: session.strips.map((strip, i) => evaluateStrip(session, strip, resolved[i] ?? [], phantom)) }
}

function evaluateStrip(
  session: Session,
  strip: Strip,
  stages: ResolvedStage[],
  phantom: PhantomUse[],
): StripEvaluation {
  const { programme, twoPorts } = compileStrip(stages, session)
  const { points, noise } = cascade(programme, twoPorts)
  const timing = routeInputs(session, strip, stages)
  const findings = [
    ...chainFindings({
      session,
      strip,
      stages,
      points,
      noise,
      controls: stripControls(stages),
      classes: outputClasses(stages),
      target: targetWindow(session.target),
      phantom,
      own: phantom.filter((use) => use.strip === strip.id),
    }),
    ...(timing ? timingFindings(timing.stage, timing.inputs) : []),
  ]
  return {
    id: strip.id,
    points,
    noise,
    findings: findings.sort((a, b) => GRAVITY[b.severity] - GRAVITY[a.severity]),
    tightest: tightest(points),
    latency: timing ? routes(timing.inputs) : [],
  }
}

const GRAVITY: Record<Severity, number> = { stop: 2, caution: 1, note: 0 }
