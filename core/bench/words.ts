import { halfRange, mean } from '../numeric/statistics'
import { formatDecimal } from '../units'
import type { Noise } from '../measure/noise'
import { inForce } from '../session'
import type { Bench, Figure, Remark, Row } from './procedure'

/** Which way a figure is better. */
export type Better = 'lower' | 'higher' | 'neither'

interface Judged {
  name: string
  unit: string
  digits: number
  value: number
  spread: number | null
  printed: number | null | undefined
  truth: number | null
  /** Differences up to this are no difference. */
  within: number
  better: Better
  /** What more and less of it are called: "hotter", "noisier". */
  more: string
  less: string
}

/** A figure with its judgement against the printed value, in plain words. */
export function judged({ within, better, more, less, printed = null, ...figure }: Judged): Figure {
  return {
    ...figure,
    printed,
    judgement: judgement(figure.value, printed, figure.unit, figure.digits, figure.spread, within, better, more, less),
  }
}

function judgement(
  value: number,
  printed: number | null,
  unit: string,
  digits: number,
  spread: number | null,
  within: number,
  better: Better,
  more: string,
  less: string,
): string {
  if (printed === null) return 'Nothing is printed to compare it with.'
  const off = value - printed
  const difference = `${formatDecimal(Math.abs(off), digits)} ${unit.startsWith('dB') ? 'dB' : unit}`
  if (Math.abs(off) <= Math.max(within, spread ?? 0))
    return `As printed, within ${formatDecimal(Math.max(within, spread ?? 0), digits)} ${unit.startsWith('dB') ? 'dB' : unit}.`
  const words = `${difference} ${off > 0 ? more : less} than printed`
  return better === 'neither'
    ? `${words}.`
    : `${words}: ${off > 0 === (better === 'higher') ? 'better' : 'worse'} than the maker says.`
}

/** Mean and spread of repeats; the scatter within it where there is but one. */
export const repeated = (values: readonly number[], scatter: number): { value: number; spread: number } => ({
  value: mean(values),
  spread: values.length > 1 ? halfRange(values) : scatter,
})

export const stop = (text: string): Remark => ({ severity: 'stop', text })
export const caution = (text: string): Remark => ({ severity: 'caution', text })
export const note = (text: string): Remark => ({ severity: 'note', text })

/** Differences up to this do not tell in a figure that rests on another. */
const NEAR_ENOUGH = 0.1

/** What rests on the input’s full scale and gain is no better than these are. */
export function onFullScale({ input }: Bench, rows: readonly Row[]): Remark[] {
  const standIn = rows[0]?.standIn
  const specs = inForce(input)
  if (
    standIn &&
    (Math.abs(specs.fullScale - standIn.input.fullScale) > NEAR_ENOUGH ||
      Math.abs(specs.gainMax - standIn.input.gainMax) > NEAR_ENOUGH)
  ) {
    return [
      caution(
        'The full scale or the gain in force are not this stand-in’s, and the figure is off by as much. Do 1, 2 and 3 on it first, and keep each.',
      ),
    ]
  }
  return input.measured?.fullScale
    ? []
    : [
        caution(
          'The level that reads 0 dBFS is the printed one, and this result no better than that. Measure the input’s full scale first.',
        ),
      ]
}

/** What was not measured of recordings of noise, or of a tone. */
export function disturbances(rows: readonly Row<Pick<Noise, 'seconds' | 'leftOut'>>[]): Remark[] {
  const most = rows.reduce<(typeof rows)[number] | null>(
    (worst, row) => (row.found.leftOut > (worst?.found.leftOut ?? 0) ? row : worst),
    null,
  )
  return most
    ? [
        caution(
          `Not all of “${most.name}” is alike: there is a knock, a click, a gap or a dropout. ${formatDecimal(most.found.leftOut, 1)} s are left out, and the longest calm stretch of ${formatDecimal(most.found.seconds, 1)} s measured.`,
        ),
      ]
    : []
}

/** Gains are prefilled to a tenth of a decibel, half of which they may be off. */
const SAME_GAIN = 0.06

/** A gain that the input does not have, as it is in force: most often what a scale says, where the whole range was measured as less. */
export function gainFaults({ input }: Bench, gains: readonly (number | undefined)[]): Remark[] {
  const { gainMin, gainMax } = inForce(input)
  const off = gains.find((gain) => gain !== undefined && (gain < gainMin - SAME_GAIN || gain > gainMax + SAME_GAIN))
  return off === undefined
    ? []
    : [
        stop(
          `${formatDecimal(off, 1)} dB is no gain of ${input.id}: it gives from ${formatDecimal(gainMin, 1)} to ${formatDecimal(gainMax, 1)} dB${input.measured?.gainMax ? ', as measured' : ''}. Type what it truly gives, whatever its scale says; the knob’s marks tell it.`,
        ),
      ]
}

/** Said before anything is connected or played. */
export const LOOP_CAUTIONS = [
  'Monitors and headphones down, amplifiers off: a loop of lead and software monitoring can howl.',
  'Phantom power off on every input that a line output is plugged into; wait a few seconds before plugging.',
  'Only line or headphone outputs into an input, never an amplifier’s loudspeaker output.',
]
