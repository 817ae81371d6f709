import { parseQuantity } from '../units'
import type { FieldTable, NumberField } from './field'
import { readTypedNumber } from './typed-number'

/** A figure found in a specification sheet, for the field that it fits. */
export interface FoundSpec {
  key: string
  field: NumberField
  value: number
  /** The line that it was found in. */
  line: string
}

/** What a specification sheet's lines came to, for a box with these fields. */
export interface SpecSheet {
  found: FoundSpec[]
  /** Of an EIN whose weighting the line tells. */
  weighting: 'A' | 'Z' | null
  /** Lines of which nothing was understood, or whose figure cannot be, with why. */
  left: { line: string; why: string }[]
}

/** Names that makers give a figure, for the specs that it may be; the first that the box has is taken. */
const NAMES: readonly { pattern: RegExp; keys: readonly string[] }[] = [
  { pattern: /\bE\.?I\.?N\b|equivalent input noise|input[- ]referred noise/i, keys: ['ein'] },
  { pattern: /gain range|range of gain|\bgain\b(?=.*(\bto\b|…|\.\.|–.*dB))/i, keys: ['gainMax'] },
  { pattern: /gain step|steps? of/i, keys: ['gainStep'] },
  { pattern: /^\W*max(imum|\.)? *gain/i, keys: ['gainMax'] },
  { pattern: /^\W*min(imum|\.)? *gain/i, keys: ['gainMin'] },
  { pattern: /max(imum|\.)? *(SPL|sound pressure)|overload (SPL|sound)/i, keys: ['maxSpl'] },
  {
    pattern: /max(imum|\.)? *(input|in)( level)?|input (clip|headroom|level,? max)|full[- ]scale( input)?|0 *dBFS/i,
    keys: ['fullScale', 'maxInput'],
  },
  { pattern: /max(imum|\.)? *(output|out)( level)?|output (clip|level,? max)/i, keys: ['maxOutput', 'fullScale'] },
  { pattern: /dynamic range|\bDNR\b|\bDR\b/i, keys: ['dynamicRange'] },
  { pattern: /self[- ]?noise|equivalent noise( level)?|inherent noise/i, keys: ['selfNoise'] },
  { pattern: /sensitivity/i, keys: ['sensitivity'] },
  { pattern: /(input|load) (impedance|z)\b|\bZ *in\b/i, keys: ['inputImpedance', 'impedance'] },
  { pattern: /(output|source|internal) (impedance|z)\b|\bZ *out\b/i, keys: ['outputImpedance', 'impedance'] },
  { pattern: /impedance/i, keys: ['impedance', 'inputImpedance', 'outputImpedance'] },
  { pattern: /\bpad\b/i, keys: ['pad', 'loss'] },
  { pattern: /low[- ]?cut|high[- ]?pass|\bHPF\b/i, keys: ['lowCut'] },
  { pattern: /output noise/i, keys: ['outputNoise'] },
  { pattern: /latency|delay/i, keys: ['latency'] },
  { pattern: /inductance/i, keys: ['inductance'] },
  { pattern: /loss|attenuation/i, keys: ['loss', 'pad'] },
  { pattern: /ratio/i, keys: ['ratio'] },
]

/** A number with what stands behind it up to a comma, a bracket, or an "at". */
const QUANTITY = /[+\-−–]?\d[\d.,]*\s*[^\s,;()@|\d]*(?:\s*\/\s*[^\s,;()@|\d]+)?/g

/**
 * Reads the lines of a specification sheet for a box with these fields: "EIN −128 dBu A-weighted, 150 Ω",
 * "max input +16 dBu @ min gain", "gain range 56 dB". What is not understood is told, never guessed.
 * @param gainMin where a range of gain that is told by its width alone begins
 */
export function readSpecSheet(text: string, fields: FieldTable, gainMin = 0): SpecSheet {
  const sheet: SpecSheet = { found: [], weighting: null, left: [] }
  for (const line of text.split(/[\n;]/).map((each) => each.trim())) {
    if (line === '') continue
    const why = readLine(line, fields, gainMin, sheet)
    if (why !== null) sheet.left.push({ line, why })
  }
  return sheet
}

function readLine(line: string, fields: FieldTable, gainMin: number, sheet: SpecSheet): string | null {
  const name = NAMES.find(({ pattern, keys }) => pattern.test(line) && keys.some((key) => key in fields))
  if (!name) {
    return NAMES.some(({ pattern }) => pattern.test(line))
      ? 'This box has no such figure.'
      : 'No figure of this box is called that.'
  }
  const key = name.keys.find((each) => each in fields) as string
  const field = fields[key] as NumberField
  // Numbers that belong to the name, as in "0 dBFS = +16 dBu", are none of its value.
  const values = line.replace(/0 *dBFS/i, '').match(QUANTITY) ?? []
  if (key === 'gainMax' && /range|to|…|\.\./i.test(line)) return readRange(line, values, fields, gainMin, sheet)
  for (const each of values) {
    const value = magnitude(key, parseQuantity(each.trim(), field.unit))
    if (typeof value !== 'number') continue
    const read = readTypedNumber(field, String(value))
    if (!read.ok) return read.message
    put(sheet, { key, field, value, line })
    if (key === 'ein') readNoise(line, each, fields, sheet)
    return null
  }
  return values.length === 0 ? 'There is no number in it.' : `No number in it is in ${field.unit || 'this unit'}.`
}

/** Losses are printed with a minus as often as without. */
const magnitude = (key: string, value: number | 'ambiguous' | null) =>
  typeof value === 'number' && (key === 'pad' || key === 'loss') ? Math.abs(value) : value

/** "gain range 56 dB", "gain 0 to 60 dB", "gain range +10…+65 dB". */
function readRange(line: string, values: readonly string[], fields: FieldTable, gainMin: number, sheet: SpecSheet) {
  const parts = line.split(/(?<=\d)\s*(?:dB)?\s*(?:\bto\b|…|\.\.\.?|–|—|-)\s*(?=[+\-−]?\d)/i)
  const numbers = (parts.length === 2 ? parts : values)
    .map((part) => /[+\-−–]?\d[\d.]*/.exec(part)?.[0])
    .flatMap((part) => (part === undefined ? [] : (parseQuantity(part, 'dB') ?? [])))
    .filter((part): part is number => typeof part === 'number')
  const [first, second] = numbers
  if (first === undefined) return 'There is no number in it.'
  const [low, high] = parts.length === 2 && second !== undefined ? [first, second] : [null, gainMin + first]
  for (const [key, value] of [
    ['gainMin', low],
    ['gainMax', high],
  ] as const) {
    const field = fields[key]
    if (value === null || !field) continue
    const read = readTypedNumber(field, String(value))
    if (!read.ok) return read.message
    put(sheet, { key, field, value, line })
  }
  return null
}

/** The weighting of an EIN and the resistor that it was measured with. */
function readNoise(line: string, value: string, fields: FieldTable, sheet: SpecSheet) {
  const rest = line.slice(line.indexOf(value) + value.length)
  if (/A[- ]?w(eigh)?t|\(A\)|dBu *A\b|\bA\b/i.test(rest) || /\(A\)/.test(value)) sheet.weighting = 'A'
  else if (/unweighted|\bZ\b|\blinear\b|20 *Hz/i.test(rest)) sheet.weighting = 'Z'
  const resistor = /(\d[\d.,]*)\s*(Ω|ohms?|R\b)/i.exec(rest)?.[0] ?? (/short/i.test(rest) ? '0 Ω' : undefined)
  const field = fields.einSource
  const ohms = resistor === undefined ? null : parseQuantity(resistor, 'Ω')
  if (field && typeof ohms === 'number') put(sheet, { key: 'einSource', field, value: ohms, line })
}

/** A figure that is told twice stands as it was told last. */
function put(sheet: SpecSheet, found: FoundSpec) {
  sheet.found = [...sheet.found.filter(({ key }) => key !== found.key), found]
}
