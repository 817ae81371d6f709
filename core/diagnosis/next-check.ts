import type { Answers, CheckId } from './checks'
import { checkIds, checkOf } from './checks'
import type { Ranked } from './rank'
import { outcomesOf } from './rank'

export interface NextCheck {
  check: CheckId
  /** What it is expected to tell, bits. */
  information: number
  minutes: number
}

/** Less than that tells nothing, bits. */
const NOTHING = 0.01
/** Turning from one check to another takes that long, min (common practice, no source). */
const SETTING_UP = 1

/**
 * Checks that are still open, the one first that tells most in its time: the expected information – how much less uncertain, in bits,
 * the cause will be on average once the outcome is known (Shannon 1948; Lindley 1956, from memory) – by the minutes that it takes.
 */
export function nextChecks(ranked: readonly Ranked[], answers: Answers): NextCheck[] {
  return checkIds
    .filter((check) => !(check in answers))
    .map((check) => ({ check, information: informationOf(ranked, check), minutes: checkOf(check).minutes }))
    .filter(({ information }) => information > NOTHING)
    .sort((a, b) => b.information / (b.minutes + SETTING_UP) - a.information / (a.minutes + SETTING_UP))
}

/** Entropy of the outcome less its mean entropy once the cause is known: what cause and outcome tell of each other. */
export function informationOf(ranked: readonly Ranked[], check: CheckId): number {
  const outcomes = Object.keys(checkOf(check).outcomes)
  const given = ranked.map(({ id, probability }) => ({ probability, of: outcomesOf(id, check) }))
  const overall = outcomes.map((outcome) =>
    given.reduce((sum, { probability, of }) => sum + probability * (of[outcome] ?? 0), 0),
  )
  const known = given.reduce((sum, { probability, of }) => sum + probability * entropy(Object.values(of)), 0)
  return Math.max(0, entropy(overall) - known)
}

const entropy = (parts: readonly number[]): number =>
  parts.reduce((sum, part) => (part > 0 ? sum - part * Math.log2(part) : sum), 0)
