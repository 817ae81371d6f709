import type { Answers, CheckId } from '#core/diagnosis/checks'
import { checkIds, checkOf } from '#core/diagnosis/checks'
import type { SymptomId } from '#core/diagnosis/symptom'
import { symptomIds } from '#core/diagnosis/symptom'

/** What an address brings: a symptom, and answers as "check:outcome,check:outcome". What no check knows is left out. */
export function heardElsewhere(
  query: Readonly<Record<string, unknown>>,
): { symptom: SymptomId; answers: Answers } | null {
  const symptom = symptomIds.find((each) => each === query.symptom)
  if (!symptom) return null
  const given = typeof query.answers === 'string' ? query.answers.split(',') : []
  const answers: Answers = {}
  for (const each of given) {
    const [check, outcome] = each.split(':')
    if (isCheck(check) && outcome !== undefined && outcome in checkOf(check).outcomes) answers[check] = outcome
  }
  return { symptom, answers }
}

const isCheck = (id: string | undefined): id is CheckId => checkIds.some((each) => each === id)
