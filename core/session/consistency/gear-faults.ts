import type { Fault } from '../fault'
import { inForce } from '../field'
import type { InterfaceInput } from '../gear'
import { gear as gearSchema } from '../gear'
import type { Path } from './raw'
import { duplicates, fault } from './raw'

/** Faults between the values of one box: a range upside down, a missing EIN, knob marks out of order. */
export function gearFaults(raw: unknown, path: Path): Fault[] {
  const parsed = gearSchema.safeParse(raw)
  if (!parsed.success || parsed.data.kind !== 'interface') return []
  const unit = parsed.data
  return [
    ...duplicates(unit.inputs, [...path, 'inputs']),
    ...duplicates(unit.outputs, [...path, 'outputs']),
    ...unit.inputs.flatMap((input, i) => inputFaults(input, [...path, 'inputs', i])),
  ]
}

function inputFaults(input: InterfaceInput, path: Path): Fault[] {
  const specs = inForce(input)
  const found: Fault[] = []
  if (specs.gainMin > specs.gainMax) {
    found.push(fault([...path, 'specs', 'gainMax'], 'range', `The highest gain, ${specs.gainMax} dB, is below the lowest, ${specs.gainMin} dB. Exchange them.`))
  }
  if (input.type === 'mic' && specs.ein === undefined) {
    found.push(fault([...path, 'specs', 'ein'], 'missing', 'A microphone input needs its equivalent input noise in dBu. Give the printed one, or measure it.'))
  }
  input.knob?.forEach((mark, i) => {
    const before = input.knob?.[i - 1]
    if (before && mark.position <= before.position) {
      found.push(fault([...path, 'knob', i, 'position'], 'order', `Knob position ${mark.position} does not lie above ${before.position}. List the positions from fully down to fully up, each once.`))
    }
    if (before && mark.gain < before.gain) {
      found.push(fault([...path, 'knob', i, 'gain'], 'order', `The gain falls from ${before.gain} to ${mark.gain} dB while the knob turns up. Check the two readings.`))
    }
  })
  return found
}
