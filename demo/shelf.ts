import type { Gear } from '#core/gear'
import { readGearFile } from '#core/files'
import file from './shelf.gear.json'

/** The gear that the shelf starts with. All of it is invented, and says so. */
export function shelfGear(): Gear[] {
  const reading = readGearFile(file)
  if (!reading.ok)
    throw new Error(
      `The shelf file is faulty: ${reading.faults.map(({ path, message }) => `${path}: ${message}`).join('; ')}`,
    )
  return reading.items
}
