import type { StatedTolerance } from '../../model'
import type { Fault } from '../fault'
import { inForce } from '../../model/measurement'
import type { AnalogueInput, GainRange, Gear, KnobTable, Microphone } from '../../gear'
import {
  isDigitalMicrophone,
  inputSpecs,
  latencySpecs,
  outputSpecs,
  traitsOf,
  isInterface,
  isMicrophone,
} from '../../gear'
import type { FieldTable } from '../../model/field'
import { readTolerance, toleranceUnits } from '../../model/tolerance'
import type { Path } from './raw'
import { duplicates, fault, record } from './raw'

/** Faults between the values of one device: a range upside down, a missing EIN, knob marks out of order. */
export function gearFaults(gear: Gear, path: Path): Fault[] {
  if (!isInterface(gear))
    return [
      ...foreignFields(gear, path),
      ...toleranceFaults(gear.tolerance, traitsOf(gear).allFields, path),
      ...ownRange(gear, path),
      ...('knob' in gear ? knobFaults(gear.knob, path) : []),
      ...(isMicrophone(gear) ? sensitivityFaults(gear, path) : []),
    ]
  return [
    ...toleranceFaults(gear.tolerance, latencySpecs, path),
    ...gear.outputs.flatMap((output, i) => toleranceFaults(output.tolerance, outputSpecs, [...path, 'outputs', i])),
    ...duplicates(gear.inputs, [...path, 'inputs']),
    ...duplicates(gear.outputs, [...path, 'outputs']),
    ...gear.inputs.flatMap((input, i) => (input.type === 'digital' ? [] : inputFaults(input, [...path, 'inputs', i]))),
  ]
}

/** A tolerance of a figure that there is none of, or in a unit that says nothing of it, would be lost without a word. */
const toleranceFaults = (
  tolerance: Readonly<Record<string, StatedTolerance>> | undefined,
  table: FieldTable,
  path: Path,
): Fault[] =>
  Object.entries(tolerance ?? {}).flatMap(([key, stated]) => {
    const at = [...path, 'tolerance', key]
    const field = table[key]
    if (!field)
      return [
        fault(
          at,
          'unknown-key',
          `There is no figure "${key.slice(0, 40)}" to be off. Name one of ${Object.keys(table).slice(0, 12).join(', ')}.`,
        ),
      ]
    if (readTolerance(stated, field)) return []
    return [fault([...at, 'unit'], 'unknown-unit', `State this tolerance in ${toleranceUnits(field).join(' or ')}.`)]
  })

/** Figures and sockets that a box of its kind, as it stands, cannot have: volts and ohms on a plug-in, a coil on a line output. */
function foreignFields(gear: Gear, path: Path): Fault[] {
  const traits = traitsOf(gear)
  const own = traits.fields(gear)
  const meaningless = (part: 'specs' | 'measured') =>
    Object.entries(record(record(gear)[part]))
      .filter(
        ([key, value]) =>
          key in traits.allFields && !(key in own) && value !== undefined && value !== traits.allFields[key]?.initial,
      )
      .map(([key]) =>
        fault(
          [...path, part, key],
          'unknown-key',
          `${traits.words.name.replace(/^an? /, '')} as this one is has no "${key}". Remove it.`,
        ),
      )
  const socketless = record(gear).plugs !== undefined && traits.sockets(gear).length === 0
  return [
    ...meaningless('specs'),
    ...meaningless('measured'),
    ...(socketless
      ? [
          fault(
            [...path, 'plugs'],
            'unknown-key',
            'It has no sockets: no cable leads into it or out of it. Remove this.',
          ),
        ]
      : []),
  ].map((each) => ({ ...each, message: each.message.charAt(0).toUpperCase() + each.message.slice(1) }))
}

function ownRange(gear: Exclude<Gear, { kind: 'interface' }>, path: Path): Fault[] {
  const specs = inForce<object>(gear)
  return 'gainMin' in specs ? rangeFaults(specs as GainRange, path) : []
}

/** What a sound gives at its output has to be known of a microphone: in volts, or in numbers. */
const sensitivityFaults = (gear: Microphone, path: Path): Fault[] =>
  isDigitalMicrophone(gear)
    ? []
    : (['sensitivity', 'impedance'] as const)
        .filter((key) => inForce(gear)[key] === undefined)
        .map((key) =>
          fault(
            [...path, 'specs', key],
            'missing',
            key === 'sensitivity'
              ? 'A microphone needs its sensitivity in mV/Pa, or "digitalSensitivity" in dBFS where it has a converter of its own.'
              : 'A microphone needs its impedance in Ω.',
          ),
        )

function inputFaults(input: AnalogueInput, path: Path): Fault[] {
  const specs = inForce(input)
  return [
    ...rangeFaults(specs, path),
    ...knobFaults(input.knob, path),
    ...toleranceFaults(input.tolerance, inputSpecs, path),
  ]
}

function rangeFaults({ gainMin, gainMax }: Pick<GainRange, 'gainMin' | 'gainMax'>, path: Path): Fault[] {
  if (gainMin <= gainMax) return []
  return [
    fault(
      [...path, 'specs', 'gainMax'],
      'range',
      `The maximum gain, ${gainMax} dB, is below the minimum, ${gainMin} dB. Exchange them.`,
    ),
  ]
}

function knobFaults(knob: KnobTable | undefined, path: Path): Fault[] {
  const found: Fault[] = []
  knob?.forEach((mark, i) => {
    const before = knob[i - 1]
    if (before && mark.position <= before.position) {
      found.push(
        fault(
          [...path, 'knob', i, 'position'],
          'order',
          `Knob position ${mark.position} does not lie above ${before.position}. List the positions from fully down to fully up, each once.`,
        ),
      )
    }
    if (before && mark.gain < before.gain) {
      found.push(
        fault(
          [...path, 'knob', i, 'gain'],
          'order',
          `The gain falls from ${before.gain} to ${mark.gain} dB while the knob turns up. Check the two readings.`,
        ),
      )
    }
  })
  return found
}
