import type { FindingCode } from '../checks/finding-titles'
import type { TimingFindingCode } from '../timing/finding-codes'

/**
 * Findings that are no fault that one would hear: advice, or figures that are missing or odd. Every other one belongs to a cause
 * (`Cause.codes`).
 */
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
