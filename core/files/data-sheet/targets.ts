import type { FieldTable } from '../../model'
import type { Gear, InterfaceInput, InterfaceOutput } from '../../gear'
import { inputSpecs, isDigitalMicrophone, outputSpecs, kinds, traitsOf, isInterface, isMicrophone } from '../../gear'
import type { PortContext } from './contexts'

/** What a data sheet’s figures can go to: a device, or all ports of one sort on a unit. */
export interface SheetTarget {
  readonly id: string
  /** Of ports: “microphone inputs”. */
  readonly name: string
  readonly context: Required<PortContext> | null
  readonly fields: FieldTable
  readonly gainMin: number
  /** A microphone’s. */
  readonly hasPattern: boolean
}

const TYPES = { mic: 'microphone inputs', line: 'line inputs', instrument: 'instrument inputs' } as const
const OUTPUTS = { headphone: 'headphone outputs', line: 'line outputs', monitor: 'monitor outputs' } as const

/** Ports that a target stands for. */
export const isInTarget = (
  { id }: Pick<SheetTarget, 'id'>,
  side: 'in' | 'out',
  { type }: InterfaceInput | InterfaceOutput,
) => id === `${side} ${type}`

/**
 * Where the figures of a device’s data sheet can go.
 * @param port the one in hand: figures of which the sheet does not say whose they are go to ports of its sort
 */
export function sheetTargets(gear: Gear, port?: string): SheetTarget[] {
  if (!isInterface(gear)) {
    const { gainMin = 0 } = ('specs' in gear ? gear.specs : {}) as { gainMin?: number }
    // A microphone’s sheet says by its unit whether it has a converter of its own.
    const fields =
      isMicrophone(gear) && !isDigitalMicrophone(gear) ? kinds.microphone.allFields : traitsOf(gear).fields(gear)
    return [{ id: gear.id, name: gear.name, context: null, fields, gainMin, hasPattern: isMicrophone(gear) }]
  }
  const inputs = (Object.keys(TYPES) as (keyof typeof TYPES)[]).flatMap((type) => {
    const first = gear.inputs.find((each) => each.type === type)
    if (first?.type !== type) return []
    const { gainMin } = first.specs
    return [
      {
        id: `in ${type}`,
        name: TYPES[type],
        context: { side: 'in', type } as const,
        fields: inputSpecs,
        gainMin,
        hasPattern: false,
      },
    ]
  })
  const outputs = (Object.keys(OUTPUTS) as (keyof typeof OUTPUTS)[])
    .filter((type) => gear.outputs.some((each) => each.type === type))
    .map((type) => ({
      id: `out ${type}`,
      name: OUTPUTS[type],
      context: { side: 'out', type } as const,
      fields: outputSpecs,
      gainMin: 0,
      hasPattern: false,
    }))
  const inHand = gear.inputs.find(({ id }) => id === port)?.type
  return [
    ...inputs.filter(({ context }) => context.type === inHand),
    ...inputs.filter(({ context }) => context.type !== inHand),
    ...outputs,
  ]
}
