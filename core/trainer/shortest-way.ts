import { causeOf } from '../diagnosis/causes'
import type { CheckId } from '../diagnosis/checks'
import { checkOf } from '../diagnosis/checks'
import type { Fix } from '../diagnosis/fixes'
import { fixOf } from '../diagnosis/fixes'
import { nextChecks } from '../diagnosis/next-check'
import { outcomeOn } from './planted/plant'
import type { Ranked } from '../diagnosis/rank'
import { outcomesOf, rank } from '../diagnosis/rank'
import { SessionView } from '../diagnosis/view'
import type { DiagnosisView } from '../diagnosis/view'
import type { Exercise, Fault } from './exercise'

/** The fewest checks, each with what it shows, that lead to the cause and its fix: nobody scores full marks with fewer. */
export interface ShortestWay {
  checks: { check: CheckId; ask: string; shows: string }[]
  /** What the session says of the cause. */
  evidence: string[]
  fix: Fix
}

/** A cause is found when it is the likeliest and likelier than that (common practice, no source). */
const SURE = 0.75
/** More checks than that nobody wants to be shown. */
const MOST = 3

export function shortestWay(exercise: Exercise, fault: number): ShortestWay {
  const { cause, symptom, hidden } = exercise.faults[fault] as Fault
  const view = new SessionView(exercise.session).strips.find(
    ({ strip }) => strip.id === exercise.strip,
  ) as DiagnosisView
  const ranked = rank([view], { symptoms: [symptom], answers: {} })
  const shown = (check: CheckId) => outcomeOn({ cause, hidden }, view, check)
  return {
    checks: fewestChecks(ranked, cause, shown).map((check) => {
      const { ask, outcomes } = checkOf(check)
      return { check, ask, shows: outcomes[shown(check)] ?? shown(check) }
    }),
    evidence: (causeOf(cause).evidence?.(view, [symptom]) ?? [])
      .filter(({ weight }) => weight > 1)
      .map(({ says }) => says),
    fix: fixOf(view, cause),
  }
}

/**
 * The smallest set of checks that finds the cause; of several as small the one that makes it surest. Where no such set finds it, the
 * surest of the largest.
 */
function fewestChecks(ranked: readonly Ranked[], cause: Fault['cause'], shown: (check: CheckId) => string): CheckId[] {
  const useful = nextChecks(ranked, {}).map(({ check }) => check)
  const told = new Map(useful.map((check) => [check, ranked.map(({ id }) => outcomesOf(id, check)[shown(check)] ?? 1)]))
  const at = ranked.findIndex(({ id }) => id === cause)
  let sets: CheckId[][] = [[]]
  let best: CheckId[] = []
  for (let size = 0; size <= MOST; size++) {
    const weighed = sets.map((set) => ({ set, ...found(ranked, at, set, told) }))
    const surest = weighed.reduce((most, each) => (each.probability > most.probability ? each : most))
    best = surest.set
    if (surest.first && surest.probability > SURE) break
    sets = sets.flatMap((set) =>
      useful.slice(useful.indexOf(set.at(-1) as CheckId) + 1).map((check) => [...set, check]),
    )
    if (sets.length === 0) break
  }
  return best
}

/** Bayes’ rule with the outcomes of a set of checks: how likely the cause is then, and whether it is the likeliest. */
function found(
  ranked: readonly Ranked[],
  at: number,
  set: readonly CheckId[],
  told: ReadonlyMap<CheckId, readonly number[]>,
): { probability: number; first: boolean } {
  const weights = ranked.map(({ probability }, i) =>
    set.reduce((product, check) => product * (told.get(check)?.[i] ?? 1), probability),
  )
  const total = weights.reduce((sum, each) => sum + each, 0)
  const own = weights[at] ?? 0
  return { probability: total > 0 ? own / total : 0, first: own >= Math.max(...weights) }
}
