import type { Evidence } from './cause'
import type { CauseId } from './causes'
import { causeIds, causeOf } from './causes'
import type { Answers, CheckId } from './checks'
import { checkOf } from './checks'
import { readingEvidence } from './reading-evidence'
import type { SymptomId, When } from './symptom'
import { whenIds } from './symptom'
import type { DiagnosisView } from './view'

/** What is complained of. */
export interface Complaint {
  symptoms: readonly SymptomId[]
  when?: When | undefined
  answers: Answers
}

/** What may be behind it; `something-else` is whatever is not in the table. */
export type RankedId = CauseId | 'something-else'

export interface Ranked {
  id: RankedId
  /** 0…1; all of them add to 1. */
  probability: number
  /** The strip in which the evidence was found: the one that speaks most for it. */
  strip: string
  evidence: Evidence[]
}

/** A symptom that a cause says nothing of is there by chance now and then (common practice, no source). */
const BY_CHANCE = 0.02
/** Whatever is not in the table, as a weight beside the causes’ own, and how often it shows each symptom (common practice, no source). */
const ELSE = { prior: 8, symptom: 0.5 }

/**
 * Naive Bayes: one cause is at work, and what is seen of it does not hang together otherwise. The weight of each is its prior, times
 * how often it shows these symptoms, at this time, with these outcomes of checks, times the weights of what the session says.
 * Of several strips the one is looked at that speaks most for the cause.
 */
export function rank(views: readonly DiagnosisView[], { symptoms, when, answers }: Complaint): Ranked[] {
  const weighed = causeIds.flatMap((id) => {
    const cause = causeOf(id)
    if (!symptoms.some((symptom) => cause.symptoms[symptom] !== undefined)) return []
    const shown = symptoms.reduce((product, symptom) => product * (cause.symptoms[symptom] ?? BY_CHANCE), cause.prior)
    const best = views
      .map((view) => ({
        view,
        evidence: [...(cause.evidence?.(view, symptoms) ?? []), ...readingEvidence(view, cause)],
      }))
      .map((each) => ({ ...each, weight: each.evidence.reduce((product, { weight }) => product * weight, 1) }))
      .reduce((most, each) => (each.weight > most.weight ? each : most))
    const weight =
      shown *
      (when ? (cause.when?.[when] ?? 1) / meanWhen(id) : 1) *
      answered(answers, (check) => outcomesOf(id, check)) *
      best.weight
    return [{ id, weight, strip: best.view.strip.id, evidence: best.evidence }]
  })
  const other = {
    id: 'something-else' as const,
    weight: ELSE.prior * ELSE.symptom ** symptoms.length * answered(answers, (check) => checkOf(check).usual),
    strip: views[0]?.strip.id ?? '',
    evidence: [],
  }
  const all = [...weighed, other]
  const total = all.reduce((sum, { weight }) => sum + weight, 0)
  return all
    .map(({ weight, ...each }) => ({ ...each, probability: weight / total }))
    .sort((a, b) => b.probability - a.probability)
}

/** How likely the outcomes of a check are where this is the cause: as it says, what is left over shared as usual. */
export function outcomesOf(id: RankedId, check: CheckId): Readonly<Record<string, number>> {
  const { usual, outcomes } = checkOf(check)
  const own = id === 'something-else' ? undefined : causeOf(id).shows[check]
  if (!own) return usual
  const left = 1 - Object.values(own).reduce((sum, each) => sum + each, 0)
  const others = Object.keys(outcomes).filter((outcome) => own[outcome] === undefined)
  const usually = others.reduce((sum, outcome) => sum + (usual[outcome] ?? 0), 0)
  return Object.fromEntries(
    Object.keys(outcomes).map((outcome) => [
      outcome,
      own[outcome] ?? (usually > 0 ? (left * (usual[outcome] ?? 0)) / usually : 0),
    ]),
  )
}

const answered = (answers: Answers, of: (check: CheckId) => Readonly<Record<string, number>>): number =>
  Object.entries(answers).reduce((product, [check, outcome]) => product * (of(check as CheckId)[outcome] ?? 1), 1)

/** So that a cause is no likelier for having been given large numbers. */
const meanWhen = (id: CauseId): number => {
  const { when = {} } = causeOf(id)
  return whenIds.reduce((sum, each) => sum + (when[each] ?? 1), 0) / whenIds.length
}
