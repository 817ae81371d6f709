/** Which ports of a box a figure is of; a side alone where the words tell no more. */
export interface PortContext {
  readonly side?: 'in' | 'out'
  readonly type?: 'mic' | 'line' | 'instrument' | 'headphone' | 'monitor'
}

const WORDS: readonly { pattern: RegExp; context: PortContext }[] = [
  {
    pattern:
      /\bmic(?:rophones?|s)?(?:[- ]?(?:in(?:put)?s?|pre(?:amp)?s?|preamplifiers?))?\b|mikrofon(?:e|eingange?|vorverstarker)?|\bmicro(?:phones?)?\b|microfonos?|(?<!phono )\bpre-?amps?\b|preamplifiers?|vorverstarker|preampli\w*|\bxlr in(?:put)?s?\b/,
    context: { side: 'in', type: 'mic' },
  },
  {
    pattern:
      /\binst(?:rument)?s?\b(?:[- ]in(?:put)?s?)?|\bhi-?z\b|\bguitar\b|instrumenten?eingange?|entrees? instrument|guitarra/,
    context: { side: 'in', type: 'instrument' },
  },
  {
    pattern: /\bline[- ]out(?:put)?s?\b|line-?ausgange?|sorties? ligne|salidas? (?:de )?linea|\bd ?\/ ?a\b|\bdac\b/,
    context: { side: 'out', type: 'line' },
  },
  {
    pattern:
      /\bmonitor(?:[- ]out(?:put)?s?)?\b|monitor-?ausgange?|sorties? (?:moniteurs?|monitor)|salidas? (?:de )?monitor/,
    context: { side: 'out', type: 'monitor' },
  },
  {
    pattern:
      /(?:head)?phones?(?:[- ]?(?:out(?:put)?s?|amp(?:lifier)?))?\b|kopfhorer(?:ausgange?|verstarker)?|casque|auriculares/,
    context: { side: 'out', type: 'headphone' },
  },
  {
    pattern: /\bline(?:[- ]in(?:put)?s?)?\b|line-?eingange?|entrees? ligne|entradas? (?:de )?linea|\bligne\b/,
    context: { side: 'in', type: 'line' },
  },
  { pattern: /\ba ?\/ ?d\b|\badc\b|\binputs?\b|eingange?\b|entrees?\b|entradas?\b/, context: { side: 'in' } },
  { pattern: /\boutputs?\b|ausgange?\b|sorties?\b|salidas?\b/, context: { side: 'out' } },
]

export interface FoundContext {
  readonly start: number
  readonly end: number
  readonly context: PortContext
}

/** The ports that a text names, in its order; of words that overlap the first in the table is meant. */
export function contextsIn(text: string): FoundContext[] {
  const found: FoundContext[] = []
  for (const { pattern, context } of WORDS) {
    for (const match of text.matchAll(new RegExp(pattern.source, 'g'))) {
      const [start, end] = [match.index, match.index + match[0].length]
      if (!found.some((each) => start < each.end && end > each.start)) found.push({ start, end, context })
    }
  }
  return found.sort((a, b) => a.start - b.start)
}
