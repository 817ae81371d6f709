import { measurementOf } from '../model/tolerance'
import type { Tolerant, ValueOrigin } from '../model/tolerance'
import type { GearKind } from './kinds'
import { kinds } from './kinds'

/** Whether a figure is printed nowhere: how somebody plays is assumed until it is measured. */
export const isPerformance = (kind: GearKind, spec: string): boolean => kinds[kind].performance.has(spec)

/** Where a figure of a box or of the room is from. */
export function originOf(kind: GearKind | 'room', owner: Tolerant, spec: string): ValueOrigin {
  if (measurementOf(owner, spec)) return 'measured'
  return kind === 'room' || isPerformance(kind, spec) || owner.assumed?.includes(spec) ? 'assumed' : 'printed'
}
