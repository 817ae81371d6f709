import type { AnalogueInput } from './interface'
import type { Gear } from '../kinds'
import { isInterface } from './interface'

/** The analogue input of a unit's port. */
export function analogueInput(gear: Gear, port: string | undefined): AnalogueInput | undefined {
  if (!isInterface(gear)) return undefined
  const input = gear.inputs.find((candidate) => candidate.id === port)
  return input && input.type !== 'digital' ? input : undefined
}

/** What a port of a unit occupies: its combined socket where it is one way into that, itself otherwise. */
export function socketOf(gear: Gear, port: string | undefined): string {
  const input = analogueInput(gear, port)
  return input?.socket === undefined ? `port ${port}` : `socket ${input.socket}`
}
