import type { Draft } from './finding'
import { digitalLink, gainBehindConverter } from './digital'
import { capsuleOverload, overdriven } from './headroom'
import { connectors, levelClasses, sharedInput, unbalanced } from './joints'
import { level } from './level'
import { leadTreble, loading } from './loading'
import { lowCutIn } from './low-cut'
import { einBelowThermal, electronicsOnly, pastCrossover } from './noise'
import { padNotNeeded } from './pad'
import { phantomHarmful, phantomMissing, phantomNeighbour, phantomUnneeded } from './phantom'
import { offAxis, volumeDown } from './source'
import type { Check, StripView } from './view'

export type { StripView } from './view'

const checks: readonly Check[] = [
  capsuleOverload,
  overdriven,
  level,
  phantomMissing,
  phantomHarmful,
  phantomNeighbour,
  phantomUnneeded,
  sharedInput,
  levelClasses,
  loading,
  leadTreble,
  connectors,
  unbalanced,
  padNotNeeded,
  gainBehindConverter,
  digitalLink,
  volumeDown,
  offAxis,
  einBelowThermal,
  pastCrossover,
  electronicsOnly,
  lowCutIn,
]

/** All that the chain's checks have to say about a strip, their fixes not yet tried. */
export function chainFindings(view: StripView): Draft[] {
  const found: Draft[] = []
  for (const check of checks) found.push(...check(view))
  // A pad that is in the way is what is wrong with the level: its fix sets the gain with it.
  const padInTheWay = found.some((each) => each.code === 'pad-not-needed')
  return padInTheWay ? found.filter((each) => each.code !== 'target-missed') : found
}
