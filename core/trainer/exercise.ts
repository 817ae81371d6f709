import type { CauseId } from '../diagnosis/causes'
import { causeIds, causeOf } from '../diagnosis/causes'
import type { CheckId } from '../diagnosis/checks'
import { checkIds } from '../diagnosis/checks'
import { fits } from './planted/fits'
import { outcomeOn, plant } from './planted/plant'
import type { Planted } from './planted/plant'
import { templateOf } from './planted/templates'
import type { SymptomId } from '../diagnosis/symptom'
import { symptoms } from '../diagnosis/symptom'
import { SessionView } from '../diagnosis/view'
import type { DiagnosisView } from '../diagnosis/view'
import { seeded } from '../numeric/random'
import type { Session } from '../session'

/** A faulty chain to be found out: what is complained of, and what is wrong with it. */
export interface Exercise {
  seed: number
  grade: Grade
  title: string
  session: Session
  strip: string
  /** One fault, or two in a large chain; the first one is complained of first. */
  faults: Fault[]
}
export interface Fault {
  cause: CauseId
  hidden: boolean
  symptom: SymptomId
}

/** 1: one box and its gain; 2: a box between; 3: a whole desk; 4: a desk and its room, or two faults. */
export type Grade = 1 | 2 | 3 | 4
export const grades: readonly Grade[] = [1, 2, 3, 4]

/** Seeds that are tried before another template is taken. */
const TRIES = 40

/** The kinds of fault that a grade has: those that can be planted in one of its chains. */
export const kindsOf = (grade: Grade): CauseId[] =>
  causeIds.filter((cause) => fits[cause].some((template) => gradeOf(template) === grade))

const gradeOf = (template: Parameters<typeof templateOf>[0]) => templateOf(template).grade

/**
 * An exercise of a kind. The same seed makes the same. Chains of the grade are taken where the kind makes sense in one, else the nearest
 * smaller ones; from grade 4 on a second, hidden fault with another symptom is there too, every other time.
 */
export function exerciseOf(kind: CauseId, grade: Grade, seed: number): Exercise {
  const random = seeded(seed)
  random()
  const near = [...fits[kind]].sort(
    (a, b) => Math.abs(gradeOf(a) - grade) - Math.abs(gradeOf(b) - grade) || (random() < 0.5 ? -1 : 1),
  )
  for (let i = 0; i < TRIES; i++) {
    const template = near[i % near.length]
    const planted = template && plant(kind, template, seed + 1000 * i)
    if (!planted) continue
    const faults: Fault[] = [planted, ...(grade === 4 && seed % 2 === 0 ? second(planted, random) : [])].map(
      ({ cause, hidden, symptom }) => ({ cause, hidden, symptom }),
    )
    return {
      seed,
      grade,
      title: templateOf(planted.template).title,
      session: planted.session,
      strip: planted.strip,
      faults,
    }
  }
  throw new Error(`No chain was found in which ${kind} makes sense.`)
}

/** Hidden faults that can be beside any other, since they are heard by themselves. */
const BESIDE: readonly CauseId[] = [
  'earth-loop',
  'supply-ripple',
  'other-programs',
  'usb-path',
  'automatic-gain',
  'balance-control',
]

function second({ cause, symptom }: Planted, random: () => number): Fault[] {
  const others = BESIDE.filter((each) => each !== cause && causeOf(each).symptoms[symptom] === undefined)
  const other = others[Math.floor(random() * others.length)]
  const shown = other && (Object.keys(causeOf(other).symptoms)[0] as SymptomId)
  return other && shown ? [{ cause: other, hidden: true, symptom: shown }] : []
}

/** A strip of a session as checks look at it. */
export const viewOf = (session: Session, strip: string): DiagnosisView =>
  new SessionView(session).strips.find((each) => each.strip.id === strip) as DiagnosisView

/** Checks that tell something of what is complained of. */
export const checksFor = ({ faults }: Exercise): CheckId[] => {
  const asked = new Set(faults.map(({ symptom }) => symptom))
  const causes = causeIds.filter((id) => [...asked].some((symptom) => causeOf(id).symptoms[symptom] !== undefined))
  return checkIds.filter((check) => causes.some((id) => causeOf(id).shows[check] !== undefined))
}

/** Causes that could be named for what is complained of. */
export const candidates = (symptom: SymptomId): CauseId[] =>
  causeIds.filter((id) => causeOf(id).symptoms[symptom] !== undefined)

/** What a check shows on the chain as it is turned now. Of two faults the one shows that the check is made for. */
export function outcomeOf(
  { faults }: Exercise,
  view: DiagnosisView,
  check: CheckId,
  found: readonly CauseId[] = [],
): string {
  const open = faults.filter(({ cause }) => !found.includes(cause))
  const own =
    open.find(({ cause, hidden }) => hidden && causeOf(cause).shows[check] !== undefined) ?? open[0] ?? faults[0]
  return outcomeOn(own as Fault, view, check)
}

/** The ways to fix that are offered: the right one among those of other causes, in an order of their own. */
export function fixChoices({ faults, seed }: Exercise, fault: number): { cause: CauseId; says: string }[] {
  const { cause, symptom } = faults[fault] as Fault
  const random = seeded(seed + 5)
  const others = candidates(symptom)
    .filter((id) => id !== cause)
    .map((id) => ({ id, at: random() }))
    .sort((a, b) => a.at - b.at)
    .slice(0, 3)
    .map(({ id }) => id)
  return [cause, ...others]
    .map((id) => ({ cause: id, says: causeOf(id).byHand, at: random() }))
    .sort((a, b) => a.at - b.at)
    .map(({ cause: id, says }) => ({ cause: id, says }))
}

/** What the performer says, in the symptom’s words. */
export const complaintOf = ({ session, strip, faults }: Exercise): string => {
  const name = session.strips.find(({ id }) => id === strip)?.name ?? ''
  const words = faults.map(({ symptom }) =>
    symptoms[symptom].title
      .replace(/^It\b/, 'it')
      .replace(/^Nothing/, 'nothing')
      .replace(/^Wrong/, 'wrong')
      .replace(/^The\b/, 'the'),
  )
  return `${name}: ${words.join('; and ')}.`
}
