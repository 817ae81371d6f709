import type { Finding } from '../../session'
import { digitalLink, gainBehindConverter } from './digital'
import { capsuleOverload, overdriven, recorderHeadroom } from './headroom'
import { connectors, levelClasses, sharedInput, unbalanced } from './joints'
import { loading } from './loading'
import { lowCutIn } from './low-cut'
import { einBelowThermal, electronicsOnly, pastCrossover } from './noise'
import { phantomHarmful, phantomMissing, phantomNeighbour, phantomUnneeded } from './phantom'
import { gainRangeExhausted, padNotNeeded, targetMissed } from './target'
import type { Check, StripView } from './view'

export type { StripView } from './view'

const checks: readonly Check[] = [
  capsuleOverload,
  overdriven,
  recorderHeadroom,
  phantomMissing,
  phantomHarmful,
  phantomNeighbour,
  phantomUnneeded,
  sharedInput,
  levelClasses,
  loading,
  connectors,
  unbalanced,
  targetMissed,
  gainRangeExhausted,
  padNotNeeded,
  gainBehindConverter,
  digitalLink,
  einBelowThermal,
  pastCrossover,
  electronicsOnly,
  lowCutIn,
]

/** All that the chain's checks have to say about a strip. */
export function chainFindings(view: StripView): Finding[] {
  const found: Finding[] = []
  for (const check of checks) found.push(...check(view))
  return found
}
