import { windowError } from '../chain/target-window'
import type { DiagnosisView } from '../diagnosis/view'
import { formatDecimal } from '../units'

/** How an exercise went. */
export interface Attempt {
  checks: number
  /** What the shortest way takes. */
  fewest: number
  wrongCauses: number
  wrongFixes: number
  /** How far the chain is from where it belongs afterwards, dB; `null` where no level is at stake. */
  off: number | null
  shown: boolean
}

export interface Score {
  /** 0…100. */
  points: number
  /** Good enough to come again later, not soon. */
  good: boolean
  /** What was taken off, in words. */
  because: string[]
}

const EACH = { check: 6, cause: 20, fix: 12, decibel: 4 } as const
const [FULL, GOOD] = [100, 70]

/** 100 less what was too much: each check beyond the shortest way, each wrong turn, each decibel that is left wrong. Shown: nothing. */
export function scoreOf({ checks, fewest, wrongCauses, wrongFixes, off, shown }: Attempt): Score {
  if (shown) return { points: 0, good: false, because: ['The solution was shown.'] }
  const beyond = Math.max(0, checks - Math.max(1, fewest))
  const left = off === null ? 0 : Math.min(10, Math.max(0, off))
  const taken: [number, string][] = [
    [EACH.check * beyond, `${beyond} ${beyond === 1 ? 'check' : 'checks'} more than the shortest way`],
    [EACH.cause * wrongCauses, `${wrongCauses} wrong ${wrongCauses === 1 ? 'cause' : 'causes'}`],
    [EACH.fix * wrongFixes, `${wrongFixes} wrong ${wrongFixes === 1 ? 'fix' : 'fixes'}`],
    [EACH.decibel * left, `${formatDecimal(left, 1)} dB left wrong`],
  ]
  const points = Math.max(0, Math.round(FULL - taken.reduce((sum, [each]) => sum + each, 0)))
  return {
    points,
    good: points >= GOOD,
    because: taken.filter(([each]) => each >= 0.5).map(([each, words]) => `${words}: −${formatDecimal(each, 0)}`),
  }
}

/** What is wrong with the levels of a strip, dB: what it misses of its window, and what clips. */
export function levelsOff({ chain, points }: DiagnosisView): number | null {
  const { place, target } = chain
  const point = place && points[place.index]
  if (!place || !point) return null
  const clipped = Math.max(0, ...points.map(({ headroom }) => -(headroom ?? 0)))
  return Math.max(Math.abs(windowError(point, place, target)), clipped)
}
