import type { Pattern } from '../../gear'

/** Directivities in English, German, French and Spanish, without accents; the longer names first. */
const NAMES: readonly { pattern: RegExp; is: Pattern }[] = [
  { pattern: /wide[- ]cardioid|sub-?cardioid\w*|breite niere|hypo-?cardioid\w*|infracardio\w*/, is: 'wide-cardioid' },
  { pattern: /super-?cardioid\w*|superniere/, is: 'supercardioid' },
  { pattern: /h[iy]per-?cardioid\w*|hyperniere/, is: 'hypercardioid' },
  {
    pattern: /figure[- ](?:of[- ])?(?:8|eight)|bi-?di\w+|\bacht(?:er)?\b|figura (?:de|en) ocho|figure en huit|\bocho\b/,
    is: 'figure-8',
  },
  { pattern: /omni\w*|\bkugel\b/, is: 'omni' },
  { pattern: /cardioid\w*|\bniere\b/, is: 'cardioid' },
]

/** The directivities that a text names. */
export function patternsIn(text: string): Pattern[] {
  let rest = text
  return NAMES.flatMap(({ pattern, is }) => {
    if (!pattern.test(rest)) return []
    rest = rest.replace(new RegExp(pattern.source, 'g'), ' ')
    return [is]
  })
}
