import type { Finding } from '../../session'
import { capsuleOverload, recorderHeadroom } from './headroom'
import { einBelowThermal, electronicsOnly, loading, pastCrossover } from './noise'
import { phantomHarmful, phantomMissing, phantomNeighbour, phantomUnneeded } from './phantom'
import { gainRangeExhausted, padNotNeeded, targetMissed } from './target'
import type { Check, StripView } from './view'

export type { StripView } from './view'

const checks: readonly Check[] = [
  capsuleOverload, recorderHeadroom,
  phantomMissing, phantomHarmful, phantomNeighbour, phantomUnneeded,
  targetMissed, gainRangeExhausted, padNotNeeded,
  loading, einBelowThermal, pastCrossover, electronicsOnly,
]

/** All that the chain's checks have to say about a strip. */
export function chainFindings(view: StripView): Finding[] {
  const found: Finding[] = []
  for (const check of checks) found.push(...check(view))
  return found
}
