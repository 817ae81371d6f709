import type { Finding, Severity } from '../checks/finding'
import type { Session } from '../session'
import type { Appraisal, Appraised } from './appraise'
import { believed } from '../uncertainty/belief'
import { appraisal } from './appraise'
import type { Steps } from './steps'
import { finished } from './steps'
import { settled } from './verify-fix'

export interface StripEvaluation extends Omit<Appraised, 'drafts' | 'driven' | 'walked'> {
  /** The gravest first. */
  findings: Finding[]
}

export interface Evaluation {
  strips: StripEvaluation[]
}

/** An evaluation that the next one may go on from. */
export interface Evaluated {
  readonly evaluation: Evaluation
  readonly appraisal: Appraisal
}

/**
 * Every level, headroom, noise, delay and finding of a session as it is set, and as the readings of its soundcheck say that it is.
 * A pure function of a session that was read; it throws for none.
 */
export const evaluateSession = (session: Session): Evaluation => evaluateFrom(null, session).evaluation

/** The same, going on from the evaluation of an earlier state: only what changed, and what it feeds, is evaluated again. */
export const evaluateFrom = (before: Evaluated | null, session: Session): Evaluated =>
  finished(evaluating(before, session))

/** The same, pausing after every strip. */
export function* evaluating(before: Evaluated | null, session: Session): Steps<Evaluated> {
  const now = believed(session)
  const appraised = yield* appraisal(now, before?.appraisal)
  const strips = appraised.strips.map((strip) => {
    const { id, points, noise, sum, feedback, stream, drafts, tightest, latency } = strip
    const findings = drafts.map((draft) => settled(now, appraised, strip, draft))
    return {
      id,
      points,
      noise,
      sum,
      feedback,
      stream,
      findings: findings.sort((a, b) => GRAVITY[b.severity] - GRAVITY[a.severity]),
      tightest,
      latency,
    }
  })
  return { evaluation: { strips }, appraisal: appraised }
}

const GRAVITY: Record<Severity, number> = { stop: 2, caution: 1, note: 0 }
