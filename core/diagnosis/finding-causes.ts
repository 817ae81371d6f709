import type { FindingCode } from '../session'
import type { TimingFindingCode } from '../timing/finding-codes'
import type { CauseId } from './causes'
import { causeIds, causeOf } from './causes'

/** Findings that are no fault that one would hear: advice, or figures that are missing or odd. */
export const FINDINGS_WITHOUT_CAUSE = [
  'driven',
  'ein-below-thermal',
  'bus-unfed',
  'power-order',
  'audience-level',
  'no-direct-route',
  'no-interface',
  'outlier',
  'fit',
  'measurements-differ',
  'shorter-than-buffer',
  'load-assumption',
  'wav-limit',
] as const satisfies readonly (FindingCode | TimingFindingCode)[]

/** The cause that a finding is a sign of; `null` where it is none. */
export const causeOfFinding = (code: FindingCode | TimingFindingCode): CauseId | null =>
  causeIds.find((id) => causeOf(id).codes?.includes(code)) ?? null
