import { inForce } from '../../model'
import type { Db, Dbu } from '../../units'
import { einExcess, withMeasuredEin } from '../equivalent-input-noise'
import { ofKind } from '../of-kind'
import type { Placed } from '../placed'
import type { AnalogueInput, AudioInterface, InputSpecs, InterfaceInput, InterfaceOutput } from './interface'
import { outputAt } from './interface'

/** An analogue input of an interface, as it is set. */
export interface ResolvedInput extends Placed {
  readonly kind: 'interface'
  readonly gear: AudioInterface
  readonly input: AnalogueInput
  readonly specs: InputSpecs & { einWeighting: 'A' | 'Z' }
  /** What its preamp adds, dBu(A); `null` without an EIN, or with one that cannot be. */
  readonly excess: Dbu | null
  readonly gain: Db
  readonly phantom: boolean
  readonly pad: boolean
}

/** An interface input that takes numbers from another unit. */
export interface ResolvedDigitalInput extends Placed {
  readonly kind: 'digital-input'
  readonly gear: AudioInterface
  readonly input: Extract<InterfaceInput, { type: 'digital' }>
}
export const isDigitalInput = ofKind('digital-input')

/** An interface output that gives the host’s numbers out as volts. */
export interface ResolvedOutput extends Placed {
  readonly kind: 'interface-output'
  readonly gear: AudioInterface
  readonly output: InterfaceOutput
  readonly specs: InterfaceOutput['specs']
}
export const isInterfaceOutput = ofKind('interface-output')

/** An interface stands in a strip at one of its ports. */
export function joinInterface(
  stage: Placed,
  gear: AudioInterface,
  port: string | undefined,
): ResolvedInput | ResolvedDigitalInput | ResolvedOutput {
  const output = outputAt(gear, port)
  if (output) return { kind: 'interface-output', ...stage, gear, output, specs: inForce(output) }
  // The session was read: the port is one of the unit's.
  const input = gear.inputs.find((candidate) => candidate.id === port) as InterfaceInput
  if (input.type === 'digital') return { kind: 'digital-input', ...stage, gear, input }
  const specs = withMeasuredEin(input)
  const { gain, phantom = false, pad = false } = stage.settings
  return {
    kind: 'interface',
    ...stage,
    gear,
    input,
    specs,
    excess: specs.ein === undefined ? null : einExcess({ ...specs, ein: specs.ein }),
    gain: gain ?? specs.gainMin,
    phantom,
    pad,
  }
}
