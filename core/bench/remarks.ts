import { formatDecimal } from '../units'
import type { Noise } from '../measure/noise'
import { inForce } from '../model'
import type { Bench, Remark, Row } from './procedure'

export const stop = (text: string): Remark => ({ severity: 'stop', text })
export const caution = (text: string): Remark => ({ severity: 'caution', text })
export const note = (text: string): Remark => ({ severity: 'note', text })

/** Differences up to this do not tell in a figure that rests on another. */
const NEAR_ENOUGH = 0.1

/** What rests on the input’s full scale and gain is no better than these are. */
export function onFullScale({ input }: Bench, rows: readonly Row[]): Remark[] {
  const simulated = rows[0]?.simulated
  const specs = inForce(input)
  if (
    simulated &&
    (Math.abs(specs.fullScale - simulated.input.fullScale) > NEAR_ENOUGH ||
      Math.abs(specs.gainMax - simulated.input.gainMax) > NEAR_ENOUGH)
  ) {
    return [
      caution(
        'The full scale or the gain in force are not this simulated interface’s, and the figure is off by as much. Do 1, 2 and 3 on it first, and keep each.',
      ),
    ]
  }
  return input.measured?.fullScale
    ? []
    : [
        caution(
          'The level that reads 0 dBFS is from the data sheet, and this result is no better than that. Measure the input’s full scale first.',
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
          `Not all of “${most.name}” is alike: it has a knock, a click, a gap or a dropout. ${formatDecimal(most.found.leftOut, 1)} s are left out, and the longest calm stretch of ${formatDecimal(most.found.seconds, 1)} s measured.`,
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
          `${formatDecimal(off, 1)} dB is no gain of ${input.id}: it gives from ${formatDecimal(gainMin, 1)} to ${formatDecimal(gainMax, 1)} dB${input.measured?.gainMax ? ', as measured' : ''}. Enter its true gain, whatever its scale says; measure the knob’s marks to find it.`,
        ),
      ]
}

/** Said before anything is connected or played. */
export const LOOP_CAUTIONS = [
  'Monitors and headphones down, amplifiers off: a loop of cable and software monitoring can feed back.',
  'Phantom power off on every input that a line output is plugged into; wait a few seconds before plugging.',
  'Only line or headphone outputs into an input, never an amplifier’s loudspeaker output.',
]
