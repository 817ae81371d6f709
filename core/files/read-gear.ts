import { gearFaults } from './consistency/gear-faults'
import type { Fault } from './fault'
import type { Gear } from '../gear'
import { gear as schema } from '../gear'
import { faultsFrom } from './structure'

export type GearReading = { ok: true; gear: Gear } | { ok: false; faults: Fault[] }

/** Reads one box by itself: for the shelf, for what is inserted into a strip. */
export function readGear(raw: unknown): GearReading {
  const parsed = schema.safeParse(raw)
  if (!parsed.success) return { ok: false, faults: faultsFrom(parsed.error.issues, raw) }
  const faults = gearFaults(parsed.data, [])
  return faults.length > 0 ? { ok: false, faults } : { ok: true, gear: parsed.data }
}
