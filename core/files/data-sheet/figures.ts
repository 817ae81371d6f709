import { inBrackets } from './plain'

/** A number with its unit as it stands in a line. */
export interface Figure {
  readonly start: number
  readonly end: number
  /** As printed, without what follows. */
  readonly text: string
  /** Behind “±”: how far the figure before it may be off. */
  readonly isTolerance: boolean
  /** In brackets or behind “at”: a condition of the figure before it, seldom the figure itself. */
  readonly isCondition: boolean
}

/** Digits in groups of three parted by a blank, or digits with a point or a comma; 1k5 and 4M7 as one word. */
const NUMBER = String.raw`(?:\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)*)`
const UNIT = [
  String.raw`db ?\(?(?:re\.?:?|ref\.?|rel\.? ?to|bez\. auf) ?:? ?1 ?v ?\/ ?pa\)?`,
  String.raw`dbv ?\/ ?pa`,
  String.raw`dbfs ?\/ ?pa`,
  String.raw`db ?(?:spl)? ?\/ ?mw`,
  String.raw`db ?\/ ?(?:oct\w*|okt\w*)`,
  String.raw`db ?fs`,
  String.raw`db ?spl(?: ?\(?a\)?(?![a-z]))?`,
  String.raw`dbu(?: ?\(a\))?`,
  String.raw`dbv(?: ?\(a\))?`,
  String.raw`dbm`,
  String.raw`db[- ]?\(?a\)?(?![a-z])`,
  String.raw`db`,
  String.raw`mv ?\/ ?pa`,
  String.raw`v ?\/ ?pa`,
  String.raw`[µu]v`,
  String.raw`mv`,
  String.raw`v(?:rms|eff)?(?![a-z])`,
  String.raw`pa(?![a-z])`,
  String.raw`(?:k|m|meg)? ?(?:ω|ohms?)(?![a-z])`,
  String.raw`khz|hz`,
  String.raw`[µu]s|ms|samples|frames`,
  String.raw`mh|h(?![a-z])`,
  String.raw`%`,
  String.raw`: ?1(?!\d)`,
  String.raw`[kmr](?![a-z0-9])`,
].join('|')
const FIGURE = new RegExp(
  String.raw`(?<tolerance>± ?|\+ ?\/ ?[-−–] ?)?(?<!\w)(?<!\d[.,])(?<sign>[+\-−–] ?)?(?:(?<joined>\d+[kmr]\d+)(?![a-z0-9])(?: ?(?:ω|ohms?))?|(?<number>${NUMBER})(?: ?(?<unit>${UNIT})|(?!\w)))`,
  'g',
)
/** What leads to a condition. */
const CONDITION =
  /(?:@|\bat|\bbei|\ba|\bfor|\bfur|\bpour|\bpara|\bcon|\bwith|\bavec|\bmit|\bre\.?|\brel\.?|\bref\.?|<|≤)\s*$/

/** Whether a printed figure has a unit beside its digits. */
export const hasUnit = (text: string): boolean => /[^\d.,+\-−–\s]/.test(text)

/** The figures of a line in small letters. */
export function figuresIn(text: string): Figure[] {
  const found: Figure[] = []
  for (const match of text.matchAll(FIGURE)) {
    const { tolerance, sign = '', joined, number = '', unit = '' } = match.groups ?? {}
    const before = text.slice(0, match.index)
    // A stroke between two figures is a range, not a minus: “10–60 dB”, “10 dB – 60 dB”.
    const unitBefore = /\d ?([a-zω]*) ?$/.exec(before)?.[1]
    const isRange = /[-−–]/.test(sign) && (unitBefore === '' || unitBefore === unit)
    found.push({
      start: match.index,
      end: match.index + match[0].length,
      text: `${isRange ? '' : sign.trim()}${joined ?? `${number.replace(/[ \u00a0\u202f]/g, '')}${unit && ` ${unit}`}`}`,
      isTolerance: tolerance !== undefined,
      isCondition: inBrackets(text, match.index) || CONDITION.test(before),
    })
  }
  return found
}

/** What may stand between the ends of a range. */
const TO = /^\s*(?:db)?\s*(?:to|bis|a|\.\.\.?|…|[-−–]|÷|hasta)?\s*$/

/** The two figures of a range: “10–60 dB”, “+10 dB to +65 dB”, “de 10 à 60 dB”. */
export function rangeIn(text: string, figures: readonly Figure[]): [Figure, Figure] | null {
  for (const [i, second] of figures.entries()) {
    const first = figures[i - 1]
    const between = first && text.slice(first.end, second.start)
    if (!first || between === undefined || second.isTolerance) continue
    // The stroke of a range stands in the second figure where it was taken for its sign.
    const isJoined = /^[-−–]/.test(text.slice(second.start, second.end))
    if (TO.test(between) && (between.trim() !== '' || isJoined) && between.trim() !== 'db') return [first, second]
    if (between.trim() === 'db' && isJoined) return [first, second]
  }
  return null
}
