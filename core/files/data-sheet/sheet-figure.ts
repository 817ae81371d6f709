import type { StatedTolerance } from '../../model'
import type { SheetLine } from './sheet-line'
import type { SheetTarget } from './targets'

/** A figure that a line may be read as. */
export interface Candidate {
  readonly target: string
  readonly key: string
  readonly value: number | string
  /** As it is printed. */
  readonly printed: string
  readonly line: SheetLine
  /** Further lines that say the same. */
  readonly also?: readonly SheetLine[]
  /** How it was read, where that is more than reading. */
  readonly notes: readonly string[]
  /** Further figures that belong to it, such as the resistor of an EIN. */
  readonly beside: Readonly<Record<string, number | string>>
  readonly tolerance?: StatedTolerance
  /** Why it cannot be taken. */
  readonly refused?: string
  /** How well the line says that it is this one. */
  readonly standing: number
}

/** A figure as it was read, before it is known whose it is. */
export type Reading = Omit<Candidate, 'target' | 'line'>

/** A figure of the sheet: what it may be, and what is taken until a hand says otherwise. */
export interface SheetFigure {
  readonly target: string
  readonly key: string
  readonly candidates: readonly Candidate[]
  /** Place among the candidates; `null` where none can be taken. */
  readonly chosen: number | null
  /** Several that differ: a hand should choose. */
  readonly isOpen: boolean
}

export interface DataSheet {
  readonly figures: readonly SheetFigure[]
  readonly left: readonly { readonly line: SheetLine; readonly why: string }[]
}

/** Two figures that say the same, in another unit or rounded otherwise. */
function agree(a: Candidate['value'], b: Candidate['value'], key: string): boolean {
  if (typeof a !== 'number' || typeof b !== 'number') return a === b
  const isRatio = RATIOS.has(key)
  return isRatio ? Math.abs(a - b) <= 0.03 * Math.max(Math.abs(a), Math.abs(b)) : Math.abs(a - b) <= 0.15
}
/** Figures that are no decibels: they agree within three percent. */
const RATIOS: ReadonlySet<string> = new Set([
  'sensitivity',
  'impedance',
  'inputImpedance',
  'outputImpedance',
  'lowCut',
  'latency',
  'inductance',
  'ratio',
])

const withAlso = (kept: Candidate, { line, also = [] }: Candidate): Candidate => ({
  ...kept,
  also: [...(kept.also ?? []), line, ...also].filter((each) => each !== kept.line),
})

/** A candidate that stands so much lower does not compete. */
const CLEAR = 3

/** All candidates, figure by figure, in the order of the targets and their fields. */
export function gathered(candidates: readonly Candidate[], targets: readonly SheetTarget[]): SheetFigure[] {
  return targets.flatMap(({ id, fields }) =>
    [...Object.keys(fields), 'pattern'].flatMap((key): SheetFigure[] => {
      const all: Candidate[] = []
      for (const each of candidates.filter((one) => one.target === id && one.key === key)) {
        const same = all.findIndex((one) => agree(one.value, each.value, key) && !one.refused === !each.refused)
        const known = all[same]
        if (!known) all.push(each)
        else all[same] = each.standing > known.standing ? withAlso(each, known) : withAlso(known, each)
      }
      const possible = all.filter(({ refused }) => refused === undefined)
      const best = Math.max(...possible.map(({ standing }) => standing))
      const chosen = all.findIndex(({ refused, standing }) => refused === undefined && standing === best)
      const rivals = possible.filter(({ standing }) => standing > best - CLEAR)
      return all.length === 0
        ? []
        : [{ target: id, key, candidates: all, chosen: chosen < 0 ? null : chosen, isOpen: rivals.length > 1 }]
    }),
  )
}
