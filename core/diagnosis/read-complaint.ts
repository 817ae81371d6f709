import type { Fault } from '../files'
import type { Session } from '../session'
import { describeReceived } from '../files'
import type { Answers, CheckId } from './checks'
import { checkIds, checkOf } from './checks'
import type { Complaint } from './rank'
import type { SymptomId, When } from './symptom'
import { symptomIds, whenIds } from './symptom'

/** What is asked, once it was read. */
export interface Asking {
  /** `null` for all strips. */
  strip: string | null
  complaint: Complaint
}

const list = (words: readonly string[]) => words.map((each) => `“${each}”`).join(', ')
const isIn = <T extends string>(all: readonly T[], word: unknown): word is T =>
  (all as readonly unknown[]).includes(word)

/** Reads `{ strip, symptoms, when, answers }`, every fault at once with its path. A strip that is left out, or `"all"`, is all of them. */
export function readComplaint(
  asked: Readonly<Record<string, unknown>>,
  session: Session,
): { ok: true; asking: Asking } | { ok: false; faults: Fault[] } {
  const faults: Fault[] = []
  const known = ['session', 'strip', 'symptoms', 'when', 'answers']
  for (const key of Object.keys(asked))
    if (!known.includes(key))
      faults.push({ path: key, code: 'unknown-key', message: `There is no such field. Give ${list(known)}.` })
  const strip = asked.strip === undefined || asked.strip === null || asked.strip === 'all' ? null : asked.strip
  if (strip !== null && !session.strips.some(({ id }) => id === strip))
    faults.push({
      path: 'strip',
      code: 'no-such-strip',
      message: `There is no strip ${describeReceived(strip)}. Name one of ${list(session.strips.slice(0, 20).map(({ id }) => id))}, or "all".`,
    })
  const symptoms = readSymptoms(asked.symptoms, faults)
  const { when } = asked
  if (when !== undefined && !isIn(whenIds, when))
    faults.push({
      path: 'when',
      code: 'no-such-time',
      message: `Got ${describeReceived(when)}. Give one of ${list(whenIds)}, or leave it out.`,
    })
  const answers = readAnswers(asked.answers, faults)
  if (faults.length > 0) return { ok: false, faults }
  return {
    ok: true,
    asking: { strip: strip as string | null, complaint: { symptoms, when: when as When | undefined, answers } },
  }
}

function readSymptoms(received: unknown, faults: Fault[]): SymptomId[] {
  const all = list(symptomIds)
  if (!Array.isArray(received) || received.length === 0) {
    faults.push({
      path: 'symptoms',
      code: 'missing',
      message: `Got ${describeReceived(received)}. Give one or more of ${all} in a list.`,
    })
    return []
  }
  received.forEach((each, i) => {
    if (!isIn(symptomIds, each))
      faults.push({
        path: `symptoms[${i}]`,
        code: 'no-such-symptom',
        message: `Got ${describeReceived(each)}. Give one of ${all}.`,
      })
  })
  return [...new Set(received.filter((each) => isIn(symptomIds, each)))]
}

function readAnswers(received: unknown, faults: Fault[]): Answers {
  if (received === undefined || received === null) return {}
  if (typeof received !== 'object' || Array.isArray(received)) {
    faults.push({
      path: 'answers',
      code: 'wrong-type',
      message: `Got ${describeReceived(received)}. Give an object: each check’s id with its outcome.`,
    })
    return {}
  }
  const answers: Answers = {}
  for (const [check, outcome] of Object.entries(received)) {
    const path = `answers.${check.slice(0, 64)}`
    if (!isIn(checkIds, check)) {
      faults.push({ path, code: 'no-such-test', message: `There is no such test. Give one of ${list(checkIds)}.` })
      continue
    }
    const outcomes = Object.keys(checkOf(check).outcomes)
    if (!isIn(outcomes, outcome))
      faults.push({
        path,
        code: 'no-such-outcome',
        message: `Got ${describeReceived(outcome)}. Give one of ${list(outcomes)}.`,
      })
    else answers[check as CheckId] = outcome
  }
  return answers
}
