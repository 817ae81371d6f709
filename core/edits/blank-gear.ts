import { allAssumed } from '../model/assumed'
import type { Gear, GearKind } from '../gear'
import { kinds } from '../gear'
import { readGear } from '../files/read-gear'

/** A box of a kind to start from, with the usual figures of its kind. */
export function blankGear(kind: GearKind, id: string, name: string): Gear {
  const reading = readGear({ id, kind, name, ...assuming(kinds[kind].blank) })
  if (!reading.ok) throw new Error(`The usual ${kind} is faulty: ${reading.faults[0]?.message}`)
  return reading.gear
}

/** The usual figures, wherever they stand, as assumed. */
function assuming(blank: object): object {
  const { inputs, outputs } = blank as { inputs?: { specs: object }[]; outputs?: { specs: object }[] }
  return {
    ...('specs' in blank ? allAssumed(blank as { specs: object }) : blank),
    ...(inputs && { inputs: inputs.map(allAssumed) }),
    ...(outputs && { outputs: outputs.map(allAssumed) }),
  }
}
