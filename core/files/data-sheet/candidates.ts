import type { NumberField } from '../../model/field'
import { conditionsOf, gainState, isPadded, weightingOf } from './conditions'
import type { Figure } from './figures'
import { figuresIn, hasUnit } from './figures'
import { gainRange } from './gain-range'
import { einBeside, einWords } from './input-noise'
import type { Named } from './named'
import { asPrinted } from './named'
import { patternsIn } from './pattern-names'
import { portsOf } from './ports'
import { printedQuantity } from './printed-quantity'
import { refusal } from './refusal'
import type { Candidate, Reading } from './sheet-figure'
import { signalToNoise } from './signal-to-noise'
import type { SheetTarget } from './targets'
import type { Term } from './terms'
import { toleranceOf } from './tolerance'

export interface NamedReading {
  candidates: Candidate[]
  why: string | null
}

const nothing = (why: string | null): NamedReading => ({ candidates: [], why })

/** What the figures behind a name – before it, where none follow – can be, for every target that they are of. */
export function candidatesOf(named: Named, targets: readonly SheetTarget[]): NamedReading {
  const { term } = named
  if (term.unused) return nothing(term.unused)
  if (term.name === 'pattern') return patternCandidates(named, targets)
  const figures = figuresOf(named)
  if (figures.length === 0) return nothing('There is no number in it.')
  const readings = figures.map((figure) => ({ figure, ...portsOf(named, figure, targets) }))
  const known = readings.some(({ ports }) => ports.some(({ fields }) => keysOf(term).some((key) => key in fields)))
  if (!known) return nothing('This device has no such figure.')
  const candidates = targets.flatMap((target) => {
    const own = readings.filter(({ ports }) => ports.includes(target))
    if (own.length === 0) return []
    const isNamed = own.some((each) => each.isNamed)
    return read(
      named,
      own.map(({ figure }) => figure),
      target,
    ).map((candidate) => ({
      ...candidate,
      standing: candidate.standing + (isNamed ? 4 : 0),
      notes: [
        ...candidate.notes,
        ...(isNamed || target.context === null
          ? []
          : [`The sheet does not say which ports: taken for the ${target.name}.`]),
      ],
    }))
  })
  if (candidates.length > 0) return { candidates, why: null }
  return nothing(
    term.name === 'signalToNoise'
      ? 'A signal-to-noise ratio holds for the level that it was taken at.'
      : 'No number in it fits.',
  )
}

const keysOf = ({ name, keys }: Term): readonly string[] => (name === 'gainRange' ? ['gainMax'] : keys)

function figuresOf({ text, start, end, from, to }: Named): Figure[] {
  const within = (low: number, high: number) =>
    figuresIn(text).filter((figure) => figure.start >= low && figure.end <= high)
  const after = within(end, to)
  return after.some(({ isTolerance }) => !isTolerance) ? after : within(from, start)
}

function read(named: Named, figures: readonly Figure[], target: SheetTarget): Candidate[] {
  const { term, line } = named
  const found =
    term.name === 'gainRange'
      ? gainRange(named, figures, target)
      : term.name === 'signalToNoise'
        ? signalToNoise(named, figures, target)
        : firstFitting(named, figures, target)
  return found.map((each) => ({ ...each, target: target.id, line }))
}

/** The first spec of the name that a figure’s unit fits. What is in brackets, or has no unit, comes last. */
function firstFitting(named: Named, figures: readonly Figure[], { fields }: SheetTarget): Reading[] {
  const values = figures.filter(({ isTolerance }) => !isTolerance)
  const orders = [
    values.filter((each) => !each.isCondition && hasUnit(each.text)),
    values.filter((each) => each.isCondition && hasUnit(each.text)),
    values.filter((each) => !each.isCondition && !hasUnit(each.text)),
  ]
  for (const order of orders) {
    for (const key of named.term.keys) {
      const field = fields[key]
      if (!field) continue
      const found = order.flatMap((figure) => reading(named, key, field, figure) ?? [])
      if (found.length > 0) return found
    }
  }
  return []
}

function reading(named: Named, key: string, field: NumberField, figure: Figure): Reading[] | null {
  const parsed = printedQuantity(figure.text, field.unit)
  if (parsed === 'ambiguous')
    return [
      {
        key,
        value: asPrinted(named, figure),
        printed: asPrinted(named, figure),
        notes: [],
        beside: {},
        refused: 'Its comma could part thousands or decimals.',
        standing: 0,
      },
    ]
  if (parsed === null) return null
  // Losses are printed with a minus as often as without.
  const value = key === 'pad' || key === 'loss' ? Math.abs(parsed) : parsed
  const behind = conditionsOf(named, figure)
  const weighting = weightingOf(behind + figure.text)
  const gain = gainState(named.text)
  const padded = ABOUT_MIN_GAIN.has(key) && isPadded(named.text)
  const beside = key === 'ein' ? einBeside(behind, weighting) : {}
  const refused = refusal(key, field, value, weighting, beside)
  const tolerance = toleranceOf(named, figure, field)
  const isBare = !hasUnit(figure.text) && field.unit !== ''
  return [
    {
      key,
      value,
      printed: asPrinted(named, figure),
      beside,
      notes: [
        ...(isBare ? [`No unit is printed: taken as ${field.unit}.`] : []),
        ...(gain === 'max' && ABOUT_MIN_GAIN.has(key) ? ['At maximum gain; it is wanted at minimum gain.'] : []),
        ...(padded ? ['With the pad in; it is wanted with the pad out.'] : []),
        ...einWords(beside),
      ],
      ...(tolerance !== undefined && { tolerance }),
      ...(refused !== null && { refused }),
      standing:
        (weighting === 'A' && key !== 'ein' ? 1 : 0) +
        (ABOUT_MIN_GAIN.has(key) ? { min: 2, max: -4, none: 0 }[gain] : 0) -
        (padded ? 6 : 0) -
        (figure.isCondition || isBare ? 1 : 0),
    },
  ]
}

/** Figures that hold at the lowest gain. */
const ABOUT_MIN_GAIN: ReadonlySet<string> = new Set(['fullScale', 'maxInput'])

function patternCandidates({ text, start, end, from, to, line }: Named, targets: readonly SheetTarget[]): NamedReading {
  const after = patternsIn(text.slice(end, to))
  const found = after.length > 0 ? after : patternsIn(text.slice(from, start))
  if (found.length === 0) return nothing('No pattern is named in it.')
  const owners = targets.filter(({ hasPattern }) => hasPattern)
  if (owners.length === 0) return nothing('This device has no such figure.')
  return {
    why: null,
    candidates: owners.flatMap(({ id }) =>
      found.map((value) => ({
        target: id,
        key: 'pattern',
        value,
        printed: value,
        line,
        notes: [],
        beside: {},
        standing: 0,
      })),
    ),
  }
}
