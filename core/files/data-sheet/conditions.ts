import type { Figure } from './figures'
import { figuresIn } from './figures'
import type { Named } from './named'

/** From a figure up to the next one of its own sort: the conditions that it holds under. */
export function conditionsOf({ text, to, end }: Named, figure: Figure): string {
  const next = figuresIn(text).find(
    (each) => each.start >= figure.end && !each.isCondition && !each.isTolerance && /db/.test(each.text),
  )
  const last = figure.start >= end ? Math.max(to, endOfBrackets(text, to)) : to
  return `${text.slice(figure.end, Math.min(next?.start ?? last, last))} ${figure.start > end ? text.slice(end, figure.start) : ''}`
}
const endOfBrackets = (text: string, from: number) => (text.slice(from).startsWith(')') ? from + 1 : from)

/** How a noise is weighted, where that is said. */
export type Weighting = 'A' | 'Z' | '468' | null
export function weightingOf(text: string): Weighting {
  if (/468|ccir|itu-?r/.test(text)) return '468'
  if (
    /a[- ]?w(?:eigh)?t|a[- ]?bew|\(a\)|db ?a\b|pond\w*[. ]+a\b|\ba\b[- ]?(?:pond|gewich)|,\s*a\b|dba|filtre a\b|filtro a\b/.test(
      text,
    )
  )
    return 'A'
  if (/unweighted|unbewertet|non pondere|sin ponder|\bz\b|\blin(?:ear)?\b|2[02] ?hz/.test(text)) return 'Z'
  return null
}

/** Where the gain stands while a figure holds. */
export function gainState(text: string): 'min' | 'max' | 'none' {
  if (
    /(?:@|at|bei|\bau?|con|with|\()\s*(?:the )?(?:min\w*\.?|lowest|kleinste\w*) ?(?:gain|verstarkung|ganancia)|gain (?:at )?min|ganancia min|gain = 0/.test(
      text,
    )
  )
    return 'min'
  if (
    /(?:@|at|bei|\bau?|con|with|\()\s*(?:the )?(?:max\w*\.?|full|highest) ?(?:gain|verstarkung|ganancia)|gain max|ganancia max/.test(
      text,
    )
  )
    return 'max'
  return 'none'
}

const PAD_IN = /pad,? (?:in|on|engaged|ein)\b|(?:with|w\/|mit|avec|con) pad\b/

/** Whether a figure holds with the pad in. */
export const isPadded = (text: string): boolean => PAD_IN.test(text)
