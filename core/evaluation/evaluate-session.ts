import type { Finding, Session, Severity } from '../session'
import type { Appraised } from './appraise'
import { appraise } from './appraise'
import { settled } from './try-mend'

export interface StripEvaluation extends Omit<Appraised, 'drafts'> {
  /** The gravest first. */
  findings: Finding[]
}

export interface Evaluation {
  strips: StripEvaluation[]
}

/**
 * Every level, headroom, noise, delay and finding of a session as it is set.
 * A pure function of a session that was read; it throws for none.
 */
export function evaluateSession(session: Session): Evaluation {
  const appraisal = appraise(session)
  return {
    strips: appraisal.strips.map((strip) => {
      const { id, points, noise, drafts, tightest, latency } = strip
      const findings = drafts.map((draft) => settled(session, appraisal, strip, draft))
      return {
        id,
        points,
        noise,
        findings: findings.sort((a, b) => GRAVITY[b.severity] - GRAVITY[a.severity]),
        tightest,
        latency,
      }
    }),
  }
}

const GRAVITY: Record<Severity, number> = { stop: 2, caution: 1, note: 0 }
