import { noiseCrossover } from '../gear/interface/input-gain'
import { einExcess, einWeighted } from '../gear/equivalent-input-noise'
import { powerSum } from '../numeric/power'
import { estimateRoundTrip, modelRoundTrip } from '../latency/round-trip'
import type { AnalogueInput, AudioInterface, InterfaceOutput } from '../gear'
import type { Session } from '../session'
import type { System } from '../model'
import { inForce } from '../model'
import { inputSpecs, latencySpecs, outputSpecs } from '../gear'
import { inForceAs } from '../uncertainty/input'
import { dbu, formatShort } from '../units'
import { analogueInputs } from './bench'
import { figureSpread } from './row-spread'

/** One thing that units are compared by. */
export interface ComparedRow {
  title: string
  unit: string
  digits: number
  /** For each unit in order: as printed, and as measured where it differs in origin; `null` where it is not known. */
  values: { printed: number | null; measured: number | null; u: number }[]
}

/** How a unit’s figure differs from the first one’s, and whether that is more than both may be off. */
export interface Difference {
  unit: string
  by: number
  /** Twice the standard uncertainty of the difference. */
  give: number
  isLarger: boolean
}
export interface Comparison {
  units: { id: string; name: string; input: string; output: string | null }[]
  rows: ComparedRow[]
}

/** A unit with the two ports that are compared. */
interface Compared {
  unit: AudioInterface
  input: AnalogueInput
  output: InterfaceOutput | null
}

/** Gains at which the input noise is compared, over the lowest; the highest comes last. */
const GAINS = [0, 20, 40]
/** Buffers at which the round trips are compared, frames. */
const BUFFERS = [64, 128, 256]

/** The port of a unit that stands for it: the first input of a kind, and its first line output. */
export function comparedPorts(unit: AudioInterface, type: AnalogueInput['type']): Compared | null {
  const inputs = analogueInputs(unit)
  const input = inputs.find((each) => each.type === type) ?? inputs[0]
  return input
    ? { unit, input, output: unit.outputs.find((each) => each.type === 'line') ?? unit.outputs[0] ?? null }
    : null
}

/**
 * Units side by side: full scale, input noise by gain, dynamic range, crossover and round trip at equal buffers, each as printed
 * and as measured. Measured round trips that name no unit are those of `driver`, the unit whose driver the host talks to.
 */
export function compareUnits(
  session: Session,
  units: readonly AudioInterface[],
  type: AnalogueInput['type'],
  driver: string | undefined,
): Comparison {
  const compared = units.flatMap((unit) => comparedPorts(unit, type) ?? [])
  const row = (
    title: string,
    unit: string,
    digits: number,
    printed: (each: Compared) => number | null | undefined,
    measured: (each: Compared) => number | null | undefined,
    besides: (each: Compared) => number = () => 0,
  ): ComparedRow => ({
    title,
    unit,
    digits,
    values: compared.map((each) => ({
      printed: printed(each) ?? null,
      measured: measured(each) ?? null,
      u: Math.hypot(
        rowSpread(each, (one) => measured(one) ?? printed(one)),
        besides(each),
      ),
    })),
  })
  return {
    units: compared.map(({ unit, input, output }) => ({
      id: unit.id,
      name: unit.name,
      input: input.id,
      output: output?.id ?? null,
    })),
    rows: [
      row(
        '0 dBFS in at',
        'dBu',
        1,
        ({ input }) => input.specs.fullScale,
        ({ input }) => input.measured?.fullScale?.value,
      ),
      row(
        '0 dBFS out gives',
        'dBu',
        1,
        ({ output }) => output?.specs.fullScale,
        ({ output }) => output?.measured?.fullScale?.value,
      ),
      row(
        'Dynamic range in',
        'dB(A)',
        1,
        ({ input }) => input.specs.dynamicRange,
        ({ input }) => input.measured?.dynamicRange?.value,
      ),
      row(
        'Highest gain',
        'dB',
        1,
        ({ input }) => input.specs.gainMax,
        ({ input }) => input.measured?.gainMax?.value,
      ),
      ...GAINS.map((gain) =>
        row(
          `Input noise at ${formatShort(gain)} dB`,
          'dBu(A)',
          1,
          (each) => noiseAt(each, 'specs', gain),
          (each) => (measuredNoise(each) ? noiseAt(each, 'force', gain) : null),
        ),
      ),
      row(
        'Input noise fully up',
        'dBu(A)',
        1,
        (each) => noiseAt(each, 'specs', Infinity),
        (each) => (measuredNoise(each) ? noiseAt(each, 'force', Infinity) : null),
      ),
      row(
        'Noise crossover',
        'dB',
        1,
        (each) => crossover(each, 'specs'),
        (each) => (measuredNoise(each) ? crossover(each, 'force') : null),
      ),
      ...BUFFERS.map((frames) =>
        row(
          `Round trip, ${frames} frames`,
          'ms',
          2,
          ({ unit }) => (unit.latency ? modelRoundTrip(unit, session.system, session.system.sampleRate, frames) : null),
          ({ unit }) => {
            const { milliseconds, source } = estimateRoundTrip(
              unit,
              unit.id === driver ? session.system : namedOnly(session.system),
              session.system.sampleRate,
              frames,
            )
            return source === 'model' ? null : milliseconds
          },
          ({ unit }) => measuredSpread(unit, unit.id === driver ? session.system : namedOnly(session.system), frames),
        ),
      ),
    ],
  }
}

/** How well a row’s value in force is known: by the input’s figures, the output’s and the unit’s delays. */
function rowSpread(each: Compared, value: (each: Compared) => number | null | undefined): number {
  const { unit, input, output } = each
  const ofInput = figureSpread(each, value, inForce(input) as never, input, inputSpecs, (one, spec, to) => ({
    ...one,
    input: inForceAs(one.input, spec, to),
  }))
  const ofOutput = output
    ? figureSpread(each, value, inForce(output) as never, output, outputSpecs, (one, spec, to) => ({
        ...one,
        output: one.output && inForceAs(one.output, spec, to),
      }))
    : 0
  const ofDelays = unit.latency
    ? figureSpread(each, value, unit.latency, unit, latencySpecs, (one, spec, to) => ({
        ...one,
        unit: { ...one.unit, latency: { ...one.unit.latency, [spec]: to } } as AudioInterface,
      }))
    : 0
  return Math.hypot(ofInput, ofOutput, ofDelays)
}

/** Of a measured or fitted round trip, ms. */
const measuredSpread = (unit: AudioInterface, system: System, frames: number): number =>
  estimateRoundTrip(unit, system, system.sampleRate, frames).u ?? 0

/** What each unit has more or less than the first, of the values in force. */
export function differencesOf({ units }: Comparison, { values }: ComparedRow): Difference[] {
  const inForceOf = (i: number) => values[i]?.measured ?? values[i]?.printed ?? null
  const first = inForceOf(0)
  return units.slice(1).flatMap(({ name }, k) => {
    const [own, u] = [inForceOf(k + 1), Math.hypot(values[0]?.u ?? 0, values[k + 1]?.u ?? 0)]
    if (own === null || first === null) return []
    return [{ unit: name, by: own - first, give: 2 * u, isLarger: Math.abs(own - first) > 2 * u }]
  })
}

/** Without the measured round trips that do not say whose they are. */
export const namedOnly = (system: System): System => ({
  ...system,
  roundTrips: system.roundTrips?.filter((each) => each.unit !== undefined),
})

const specsOf = ({ input }: Compared, which: 'specs' | 'force') => (which === 'specs' ? input.specs : inForce(input))
const measuredNoise = ({ input: { measured } }: Compared) =>
  measured?.ein !== undefined || measured?.dynamicRange !== undefined || measured?.fullScale !== undefined
function einOf(each: Compared, which: 'specs' | 'force'): number | null {
  const { ein } = specsOf(each, which)
  if (ein === undefined) return null
  return which === 'force' && each.input.measured?.ein ? ein : einWeighted(ein, each.input.specs.einWeighting)
}

/** EIN and converter noise together at a gain over the lowest, as input noise; none over the highest. */
function noiseAt(each: Compared, which: 'specs' | 'force', over: number): number | null {
  const specs = specsOf(each, which)
  const ein = einOf(each, which)
  const range = specs.gainMax - specs.gainMin
  if (over !== Infinity && over > range) return null
  const converter = specs.fullScale - Math.min(over, range) - specs.dynamicRange
  return powerSum([{ level: converter }, ...(ein === null ? [] : [{ level: ein }])])
}

function crossover(each: Compared, which: 'specs' | 'force'): number | null {
  const specs = specsOf(each, which)
  const ein = einOf(each, which)
  const excess = ein === null ? null : einExcess({ ein: dbu(ein), einWeighting: 'A' })
  return excess === null ? null : noiseCrossover(specs, specs.dynamicRange, excess)
}

/** The comparison as rows of text for a spreadsheet: two columns for each unit. */
export function comparisonTable({ units, rows }: Comparison): string[][] {
  const number = (value: number | null, digits: number) => (value === null ? '' : value.toFixed(digits))
  return [
    [
      'what',
      'unit',
      ...units.flatMap(({ name, input }) => [`${name}, ${input}, data sheet`, `${name}, ${input}, measured`]),
    ],
    ...rows.map((row) => [
      row.title,
      row.unit,
      ...row.values.flatMap(({ printed, measured }) => [number(printed, row.digits), number(measured, row.digits)]),
    ]),
  ]
}
