import type { Candidate } from '../files/data-sheet'
import { isInTarget } from '../files/data-sheet'
import type { AnalogueInput, AudioInterface, InterfaceOutput, Microphone, Gear } from '../gear'
import { isDigitalMicrophone, withChoice, isInterface, isMicrophone } from '../gear'
import { formatShort } from '../units'
import type { Specified } from './edit'
import { withSpec, withTolerance } from './edit'

/** A device with figures of its data sheet: those of ports at every port of their sort. */
export function withSheetFigures(gear: Gear, figures: readonly Candidate[]): Gear {
  if (isInterface(gear)) return withPortFigures(gear, figures)
  const own = isMicrophone(gear) ? asMicrophoneOf(gear, figures) : gear
  return figures.reduce<Gear>(withFigure, own)
}

/** A sheet that states a level in dBFS at 94 dB SPL is that of a microphone with a converter of its own. */
const asMicrophoneOf = (gear: Microphone, figures: readonly Candidate[]): Gear =>
  !isDigitalMicrophone(gear) && figures.some(({ key }) => key === 'digitalSensitivity')
    ? withChoice(gear, 'output', 'digital')
    : gear

const withFigure = <T extends Gear | AnalogueInput | InterfaceOutput>(owner: T, figure: Candidate): T => {
  const { key, value, tolerance, beside } = figure
  if (key === 'pattern') return { ...owner, pattern: value }
  const given = withSpec(owner as unknown as Specified, key, value)
  const whole = Object.entries(beside).reduce((each, [name, further]) => withSpec(each, name, further), given)
  return (tolerance === undefined ? whole : withTolerance(whole, key, tolerance)) as unknown as T
}

function withPortFigures(gear: AudioInterface, figures: readonly Candidate[]): AudioInterface {
  const ofPort = (side: 'in' | 'out', port: AudioInterface['inputs'][number] | InterfaceOutput) =>
    figures.filter(({ target }) => isInTarget({ id: target }, side, port))
  return {
    ...gear,
    inputs: gear.inputs.map((input) =>
      input.type === 'digital' ? input : ofPort('in', input).reduce<AnalogueInput>(withFigure, input),
    ),
    outputs: gear.outputs.map((output) => ofPort('out', output).reduce<InterfaceOutput>(withFigure, output)),
  }
}

/** What a device holds for such a figure now, in words; the first of several ports. */
export function presentFigure(gear: Gear, target: string, key: string): string {
  const owner = ownerOf(gear, target)
  const value =
    key === 'pattern'
      ? (owner as { pattern?: string } | undefined)?.pattern
      : (owner?.specs as Record<string, unknown> | undefined)?.[key]
  if (value === undefined) return '–'
  const words = typeof value === 'number' ? formatShort(value, 4) : String(value)
  return owner?.assumed?.includes(key) ? `${words}, assumed` : words
}

function ownerOf(gear: Gear, target: string): Pick<Specified, 'specs' | 'assumed'> | undefined {
  if (!isInterface(gear)) return gear as Specified
  const isOf = (side: 'in' | 'out') => (port: AudioInterface['inputs'][number] | InterfaceOutput) =>
    isInTarget({ id: target }, side, port)
  return (gear.inputs.find(isOf('in')) ?? gear.outputs.find(isOf('out'))) as Specified | undefined
}
