import type { Session } from '../session'
import { inItsUnit, unitOfSpread } from '../model'
import { withIntervals } from './intervals'
import type { NextMeasurement } from './next'
import { whatNext } from './next'
import type { Uncertainty } from './uncertainty'
import { propagate, uncertaintyFrom } from './uncertainty'

/** An input as it is told: where it stands, what it is, how well it is known. */
export interface ToldInput {
  path: string
  label: string
  of: string
  unit: string
  value: number
  origin: string
  /** Standard uncertainty, and its unit: dB for what is a ratio, such as a sensitivity. */
  u: number
  uUnit: string
  on?: string | undefined
  strips: readonly string[]
}

export interface HowSure {
  inputs: ToldInput[]
  strips: Uncertainty['strips']
  /** What to measure next, the most for its minutes first; `before` and `after` are standard uncertainties. */
  next: NextMeasurement[]
}

/**
 * How sure every figure of a session is, and what would narrow it.
 * @param draws whether figures that are curved are drawn, or the straight line is enough
 */
export function howSure(session: Session, draws = true): HowSure {
  const doubts = propagate(session)
  const { inputs, strips } = draws ? withIntervals(doubts) : uncertaintyFrom(doubts)
  return {
    inputs: inputs.map(({ path, label, owner, unit, value, origin, doubt, on, strips: reaching }) => ({
      path,
      label,
      of: owner,
      unit,
      value,
      origin,
      u: inItsUnit(value, doubt),
      uUnit: unitOfSpread(doubt, unit),
      ...(on !== undefined && { on }),
      strips: reaching,
    })),
    strips,
    next: whatNext(doubts),
  }
}
