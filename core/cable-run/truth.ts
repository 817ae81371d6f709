import { powerSum } from '../numeric/power'
import type { Plugged, SimulatedRig } from '../simulated/rig'
import { filteredAt, linesTogether } from '../simulated/rig'
import { einAt, fullScaleOf, loadedBy } from '../simulated/truth'
import { WHITE_UNDER_A } from '../units'
import type { CableFindings } from './findings'

/** What a simulated interface truly has for a figure of its sheet, by the figure’s id. Gains are those truly given at each mark. */
export function trueFigures(
  rig: SimulatedRig,
  found: CableFindings,
  { gains, calibrator }: { gains: readonly number[]; calibrator: number },
): Record<string, number> {
  const { truth, sampleRate } = rig
  const { unit } = truth
  const { gainMin } = unit.input
  const at = <T>(gain: number, figure: () => T, plugged: Plugged = { socket: 'cables' }): T => {
    const [gainNow, pluggedNow] = [rig.gain, rig.plugged]
    rig.gain = gain
    rig.plugged = plugged
    const value = figure()
    rig.gain = gainNow
    rig.plugged = pluggedNow
    return value
  }
  const outputFullScale = unit.output.fullScale + found.cable.output * truth.outputImbalance
  const isOneLeg = truth.cables.some(({ input, state }) => input === found.cable.input && state === 'one-leg')
  const { input } = found.cable
  const imbalance = input > 0 ? unit.imbalance : 0
  const lead = outputFullScale + loadedBy(unit, unit.output.impedance) - (isOneLeg ? 20 * Math.log10(2) : 0)
  const loss = (frequency: number) => filteredAt(truth, sampleRate, frequency) - filteredAt(truth, sampleRate, 997)
  // The test tone itself passes the way's filters.
  const loopGain = lead - fullScaleOf(unit, gainMin) + imbalance + filteredAt(truth, sampleRate, 970)
  const noise = (gain: number) => at(gain, () => rig.noiseAt(input))
  const hum = (isWeighted: boolean) => at(gainMin, () => linesTogether(rig.humLines(), isWeighted))
  const withHum = (level: number, isWeighted: boolean) =>
    powerSum([{ level }, ...[hum(isWeighted)].flatMap((each) => (each === null ? [] : [{ level: each }]))]) as number
  const thdN = (read: number) =>
    (powerSum([
      { level: withHum(noise(gainMin) - WHITE_UNDER_A, false) },
      { level: 2 * read - unit.input.harmonics.second },
      { level: 3 * read - unit.input.harmonics.third },
    ]) as number) - read
  const top = gains.at(-1) ?? gainMin
  const second = found.second
  return {
    'loop-gain': loopGain,
    'linearity': 0,
    ...(found.microphone && { 'microphone-full-scale': found.microphone.level - (calibrator - unit.input.fullScale) }),
    'output-full-scale': outputFullScale,
    'input-full-scale': unit.input.fullScale - imbalance,
    'highest-gain': top,
    ...Object.fromEntries(gains.map((gain, i) => [`gain-${i + 2}`, gain - gainMin])),
    'noise-lowest': noise(gainMin),
    ...Object.fromEntries(gains.map((gain, i) => [`noise-${i + 2}`, noise(gain)])),
    'noise-plug': at(top, () => rig.noiseAt(input), { socket: 'plug', input, ohms: 150 }),
    'ein': einAt(unit, top) - imbalance,
    'dynamic-range': -withHum(noise(gainMin), true),
    ...Object.fromEntries(found.distortion.map(({ read }, i) => [`thd-n-${i + 1}`, thdN(read)])),
    'response-low': loss(20),
    'response-high': loss(19_997),
    ...(second && {
      balance: unit.imbalance + second.output * truth.outputImbalance - found.cable.output * truth.outputImbalance,
    }),
    'crosstalk-1': unit.imbalance - truth.crosstalk,
    'crosstalk-2': unit.imbalance - truth.crosstalk,
    ...Object.fromEntries(
      found.roundTrips.map(({ bufferFrames }, i) => [
        `round-trip-${i + 1}`,
        (1000 * (truth.buffers * bufferFrames + unit.latencyFrames)) / sampleRate,
      ]),
    ),
    'buffers': truth.buffers,
  }
}
