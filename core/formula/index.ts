import { busses } from './busses'
import type { Formula, FormulaGroup } from './formula'
import { latency } from './latency'
import { levels } from './levels'
import { monitoring } from './monitoring'
import { noise } from './noise'
import { planner } from './planner'
import { recordings } from './recordings'
import { stages } from './stages'
import { uncertainty } from './uncertainty'
import { wire } from './wire'

export type { Formula, FormulaGroup } from './formula'

/** Every formula of the product by its subject, in the order of docs/formulas.md. */
export const formulaGroups = [
  levels,
  wire,
  stages,
  noise,
  planner,
  uncertainty,
  latency,
  monitoring,
  busses,
  recordings,
] as const satisfies readonly FormulaGroup[]

export type FormulaId = (typeof formulaGroups)[number]['formulas'][number]['id']

const byId = new Map<string, Formula>(
  formulaGroups.flatMap((group) => group.formulas.map((each: Formula) => [each.id, each] as const)),
)

export const formula = (id: FormulaId): Formula => byId.get(id) as Formula
