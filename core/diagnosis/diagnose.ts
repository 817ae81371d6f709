import type { Session } from '../session'
import type { Answers, CheckId } from './checks'
import { checkOf } from './checks'
import { causeOf } from './causes'
import { findingOfCause } from './finding-cause'
import type { Fix } from './fixes'
import { fixOf } from './fixes'
import { nextChecks } from './next-check'
import type { NextCheck } from './next-check'
import type { Complaint, Ranked, RankedId } from './rank'
import { outcomesOf, rank } from './rank'
import { isShown } from './symptom-shown'
import { SessionView } from './view'
import type { DiagnosisView } from './view'
import { lowerCase } from '../units'

/** A check with its outcomes in words. */
export interface Asked extends NextCheck {
  ask: string
  outcomes: Record<string, string>
  caution?: string
}

export interface Diagnosed extends Omit<Ranked, 'evidence'> {
  title: string
  evidence: { says: string; speaks: 'for' | 'against' | 'neither' }[]
  /** Why it is out: what the session says, or what a check showed. */
  ruledOut: string | null
  /** The open check that tells most of this one cause. */
  test: CheckId | null
  fix: Fix | null
  /** Code of the finding on its strip that shows it in the session as it is set; left out where there is none. */
  finding?: string
}

export interface Diagnosis {
  /** The likeliest first; their probabilities add to 1. */
  causes: Diagnosed[]
  /** What to check next: what tells most in its time; `null` where nothing is left that tells anything. */
  next: Asked | null
  /** What else could be checked, the best first. */
  others: Asked[]
  /** What to do now: found by a check, or by a session that shows both cause and symptom; `null` while the complaint alone speaks. */
  sure: RankedId | null
}

/** Less than that is out. */
const OUT = 0.005
/** From here on a cause counts as found (common practice, no source). */
const SURE = 0.8

/**
 * From symptoms to causes in this chain.
 * @param stripId the strip that it is about; `null` for all of them.
 */
export function diagnose(session: Session, stripId: string | null, complaint: Complaint): Diagnosis {
  return diagnoseIn(new SessionView(session), stripId, complaint)
}

export function diagnoseIn(all: SessionView, stripId: string | null, complaint: Complaint): Diagnosis {
  const views = stripId === null ? all.strips : all.strips.filter(({ strip }) => strip.id === stripId)
  const ranked = rank(views, complaint)
  const open = nextChecks(ranked, complaint.answers)
  const [next, ...others] = open.map(asked)
  const first = ranked[0]
  return {
    causes: ranked.map((each) => diagnosed(each, views, complaint.answers, open)),
    next: next ?? null,
    others,
    sure: first && first.probability >= SURE && isBorneOut(first, views, complaint) ? first.id : null,
  }
}

/**
 * Whether anything but the complaint itself speaks for a cause: a check that was answered, or a session that has the cause and shows
 * what is complained of.
 */
function isBorneOut({ id, strip }: Ranked, views: readonly DiagnosisView[], { symptoms, answers }: Complaint): boolean {
  if (Object.keys(answers).length > 0) return true
  const view = views.find((each) => each.strip.id === strip)
  if (id === 'something-else' || !view || !causeOf(id).present?.(view)) return false
  return symptoms.every((symptom) => isShown(view, symptom))
}

function asked(next: NextCheck): Asked {
  const { ask, outcomes, caution } = checkOf(next.check)
  return { ...next, ask, outcomes, ...(caution && { caution }) }
}

function diagnosed(
  { id, probability, strip, evidence }: Ranked,
  views: readonly DiagnosisView[],
  answers: Answers,
  open: readonly NextCheck[],
): Diagnosed {
  const view = views.find((each) => each.strip.id === strip)
  const words = evidence.map(({ says, weight }) => ({
    says,
    speaks: weight > 1.2 ? ('for' as const) : weight < 0.8 ? ('against' as const) : ('neither' as const),
  }))
  const shown = Object.entries(answers).map(([check, outcome]) => shownBy(id, check as CheckId, outcome))
  const finding = id === 'something-else' || !view ? null : findingOfCause(id, view)
  return {
    id,
    title: id === 'something-else' ? 'Something else' : causeOf(id).title,
    probability,
    strip,
    evidence: [...words, ...shown.filter((each) => each !== null)],
    ruledOut: probability < OUT ? reasonOut(evidence, id, answers) : null,
    test: id === 'something-else' ? null : (open.find(({ check }) => tells(id, check))?.check ?? null),
    fix: id === 'something-else' || !view || probability < OUT ? null : fixOf(view, id),
    ...(finding !== null && { finding }),
  }
}

const tells = (id: RankedId, check: CheckId) => id !== 'something-else' && causeOf(id).shows[check] !== undefined

/** What an answer says of a cause: by how much likelier it is with it than usually. */
function shownBy(id: RankedId, check: CheckId, outcome: string): Diagnosed['evidence'][number] | null {
  const { outcomes, usual } = checkOf(check)
  const ratio = (outcomesOf(id, check)[outcome] ?? 0) / (usual[outcome] ?? 1)
  if (ratio > 0.8 && ratio < 1.2) return null
  return { says: `Checked: ${lowerCase(outcomes[outcome] ?? outcome)}.`, speaks: ratio > 1 ? 'for' : 'against' }
}

function reasonOut(evidence: Ranked['evidence'], id: RankedId, answers: Answers): string {
  const against = [...evidence].sort((a, b) => a.weight - b.weight)[0]
  const shown = Object.entries(answers)
    .map(([check, outcome]) => {
      const { usual, outcomes } = checkOf(check as CheckId)
      return {
        weight: (outcomesOf(id, check as CheckId)[outcome] ?? 0) / (usual[outcome] ?? 1),
        says: `Checked: ${lowerCase(outcomes[outcome] ?? outcome)}.`,
      }
    })
    .sort((a, b) => a.weight - b.weight)[0]
  if (against && against.weight < 1 && (!shown || against.weight <= shown.weight)) return against.says
  return shown && shown.weight < 1 ? shown.says : 'What was found supports another cause.'
}
