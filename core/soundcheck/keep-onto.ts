import type { Explained } from './inferred'
import { partsOf } from './reading-words'

/**
 * What a reading’s difference is laid to when it is kept: the source, unless something else is likelier. A gain is not: what its knob
 * truly gives is measured by itself, or the recall would turn it wrong.
 * @returns path of an input, `undefined` for the source’s level, `null` where it is a gain
 */
export function keepOnto(explains: readonly Explained[]): string | null | undefined {
  const [likeliest] = partsOf(explains)
  if (likeliest?.cause === 'gain') return null
  if (likeliest?.cause !== 'microphone') return undefined
  return explains.find(({ cause }) => cause === 'microphone')?.input
}
