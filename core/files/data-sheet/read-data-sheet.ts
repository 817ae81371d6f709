import type { PortContext } from './contexts'
import { contextsIn } from './contexts'
import { figuresIn, hasUnit } from './figures'
import type { Candidate, DataSheet } from './sheet-figure'
import { gathered } from './sheet-figure'
import type { SheetLine } from './sheet-line'
import { candidatesOf } from './candidates'
import type { SheetTarget } from './targets'
import type { Term } from './terms'
import { TERMS } from './terms'
import { columnsOf, rowTexts } from './columns'
import type { Column } from './columns'
import { inBrackets, plain } from './plain'

/** What the lines before have said of those that follow. */
interface Place {
  section: PortContext
  columns: readonly Column[] | null
  /** A name that stood alone: its figures stand in the lines below. */
  name: string | null
}

/**
 * Reads the lines of a data sheet, in English, German, French or Spanish, for the ports or the device that it is of.
 * Every line comes out: as a figure, or among those left with why. What competes stands side by side, what cannot be is never
 * taken.
 */
export function readDataSheet(lines: readonly SheetLine[], targets: readonly SheetTarget[]): DataSheet {
  const candidates: Candidate[] = []
  const left: DataSheet['left'][number][] = []
  let place: Place = { section: {}, columns: null, name: null }
  for (const line of lines) {
    const columns = columnsOf(line.cells)
    if (columns) {
      place = { ...place, columns, name: null }
      continue
    }
    let why: string | null = null
    let isFound = false
    for (const { text, context } of rowTexts(line.cells, place.columns)) {
      const reading = readText(text, context ?? null, place, line, targets)
      candidates.push(...reading.candidates)
      isFound ||= reading.candidates.length > 0
      why ??= reading.why
      place = reading.place
    }
    if (!isFound && why !== null) left.push({ line, why })
  }
  return { figures: gathered(candidates, targets), left }
}

interface TextReading {
  candidates: Candidate[]
  /** Why nothing was found; `null` where nothing is missed, as in a heading. */
  why: string | null
  place: Place
}

function readText(
  printed: string,
  column: PortContext | null,
  place: Place,
  line: SheetLine,
  targets: readonly SheetTarget[],
): TextReading {
  const own = plain(printed)
  const figures = figuresIn(own)
  const hasFigures = figures.length > 0
  // Ports are numbered in a heading: “Microphone inputs (1–4)”.
  const isMeasured = figures.some(({ text }) => hasUnit(text))
  const ownTerms = termsIn(own)
  if (ownTerms.length === 0 && (!hasFigures || (!isMeasured && contextsIn(own).length > 0))) return heading(own, place)
  const usesName = ownTerms.length === 0 && place.name !== null
  const whole = usesName ? `${place.name}\t${printed}` : printed
  const text = plain(whole)
  const terms = usesName ? termsIn(text) : ownTerms
  if (terms.length === 0)
    return { candidates: [], why: 'No figure of this device is called that.', place: { ...place, name: null } }
  const found = terms.flatMap((each, i) =>
    candidatesOf(
      {
        printed: whole,
        text,
        term: each.term,
        start: each.start,
        end: each.end,
        from: terms[i - 1]?.end ?? 0,
        to: terms[i + 1]?.start ?? text.length,
        context: { ...place.section, ...column },
        isColumn: column !== null,
        line,
      },
      targets,
    ),
  )
  const candidates = found.flatMap((each) => each.candidates)
  const why = found.find((each) => each.why !== null)?.why ?? null
  const name = usesName ? place.name : hasFigures ? null : printed
  return { candidates, why: why ?? (hasFigures ? null : 'There is no number in it.'), place: { ...place, name } }
}

/** A line of words alone tells which ports the lines below it are of. */
function heading(text: string, place: Place): TextReading {
  const told = contextsIn(text)
  const first = told.find(({ context }) => context.type) ?? told[0]
  // Prose tells nothing of the lines below it.
  const isHeading = first !== undefined && text.length < 60
  return {
    candidates: [],
    why: !isHeading ? 'There is no number in it.' : /\d/.test(text) ? 'Read as a heading of the lines below it.' : null,
    place: isHeading ? { section: first.context, columns: null, name: null } : { ...place, name: null },
  }
}

interface FoundTerm {
  term: Term
  start: number
  end: number
}

/** The names in a text; what stands in brackets is a condition, and of names that overlap the longest is meant. */
function termsIn(text: string): FoundTerm[] {
  const all = TERMS.flatMap((term) =>
    [...text.matchAll(term.pattern)].map((match) => ({ term, start: match.index, end: match.index + match[0].length })),
  ).filter(({ start }) => !inBrackets(text, start))
  all.sort((a, b) => b.end - b.start - (a.end - a.start))
  const kept: FoundTerm[] = []
  for (const each of all) if (!kept.some(({ start, end }) => each.start < end && each.end > start)) kept.push(each)
  return kept.sort((a, b) => a.start - b.start)
}
