import type { CauseId } from './causes'
import { causeIds, causeOf } from './causes'
import { mainSymptom } from './finding-cause'
import type { SymptomId } from './symptom'
import type { DiagnosisView, SessionView } from './view'

/** A fault that a chain invites before anybody complains of it. */
export interface Prone {
  id: CauseId
  title: string
  /** How it would be noticed. */
  symptom: SymptomId
  /** What the session says for it, with its figures. */
  says: string[]
  /** The session has it, as it is set now. */
  present: boolean
}

/** Listed at most. */
const MOST = 6

/**
 * The faults that a chain is prone to: first those that the session has as it is set, then those that its figures support, the
 * likeliest first. What nothing in the session supports is left out: it is as likely in any other.
 */
export function proneTo({ strips }: SessionView, stripId: string | null): Prone[] {
  const views = strips.filter(({ strip }) => stripId === null || strip.id === stripId)
  return causeIds
    .flatMap((id) => views.map((view) => weighed(id, view)))
    .filter(({ prone, weight }) => prone.present || (prone.says.length > 0 && weight > 1))
    .sort((a, b) => Number(b.prone.present) - Number(a.prone.present) || b.weight - a.weight)
    .map(({ prone }) => prone)
    .filter(({ id }, i, all) => all.findIndex((each) => each.id === id) === i)
    .slice(0, MOST)
}

function weighed(id: CauseId, view: DiagnosisView): { prone: Prone; weight: number } {
  const cause = causeOf(id)
  const symptom = mainSymptom(id)
  const evidence = cause.evidence?.(view, [symptom]) ?? []
  return {
    prone: {
      id,
      title: cause.title,
      symptom,
      says: evidence.filter(({ weight }) => weight > 1).map(({ says }) => says),
      present: cause.present?.(view) ?? false,
    },
    weight: evidence.reduce((product, each) => product * each.weight, 1),
  }
}
