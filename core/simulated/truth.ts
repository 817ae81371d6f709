import { powerSum } from '../numeric/power'
import { wordLengthNoise } from '../chain/noise'
import { einExcess, EIN_RESISTANCE } from '../gear/equivalent-input-noise'
import { fullScaleAt, noiseCrossover } from '../gear/interface/input-gain'
import { loadingGain } from '../gear/loading'
import { WHITE_UNDER_A, dbu, ohms, thermalNoiseA } from '../units'
import type { SimulatedInterface } from './simulated-interface'

/** dBu that reads 0 dBFS at a gain truly given. */
export const fullScaleOf = ({ input }: SimulatedInterface, gain: number): number => fullScaleAt(input, gain)

/** EIN at a gain truly given, dBu(A). */
export function einAt({ input: { ein, einRise, gainMin, gainMax } }: SimulatedInterface, gain: number): number {
  return gainMax > gainMin ? ein + (einRise * (gainMax - gain)) / (gainMax - gainMin) : ein
}

/** What a source loses into the input, as a gain, dB. */
export const loadedBy = ({ input }: SimulatedInterface, sourceOhms: number): number =>
  loadingGain(ohms(sourceOhms), ohms(input.impedance))

/** Noise at the input with a source of some ohms, as dBFS(A): that of the source and that of the preamp. */
export function inputNoise(simulated: SimulatedInterface, sourceOhms: number, gain: number): { level: number }[] {
  const excess = einExcess({ ein: dbu(einAt(simulated, gain)), einWeighting: 'A' })
  const heard = (level: number) => ({ level: level - fullScaleOf(simulated, gain) })
  return [
    ...(sourceOhms > 0 ? [heard(thermalNoiseA(ohms(sourceOhms)))] : []),
    ...(excess === null ? [] : [heard(excess)]),
  ]
}

/** Everything without hum that the recording of an idle input holds, dBFS(A). */
export function idleNoise(simulated: SimulatedInterface, sourceOhms: number, gain: number): number {
  const word = wordLengthNoise(simulated.wordLength)
  return powerSum([
    ...inputNoise(simulated, sourceOhms, gain),
    { level: simulated.input.converterNoise },
    ...(word === null ? [] : [{ level: word }]),
  ]) as number
}

/** The same with the output plugged in, whose converter adds its own. */
export function loopNoise(simulated: SimulatedInterface, gain: number): number {
  const { output } = simulated
  const outputNoise =
    output.noise + output.fullScale + loadedBy(simulated, output.impedance) - fullScaleOf(simulated, gain)
  return powerSum([{ level: idleNoise(simulated, output.impedance, gain) }, { level: outputNoise }]) as number
}

/** Total harmonic distortion and noise of a tone recorded through the loop at a level, dB against it; 20 Hz to 20 kHz, unweighted. */
export function trueThdN(simulated: SimulatedInterface, gain: number, level: number): number {
  const { second, third } = simulated.input.harmonics
  return (
    (powerSum([
      { level: loopNoise(simulated, gain) - WHITE_UNDER_A },
      { level: 2 * level - second },
      { level: 3 * level - third },
    ]) as number) - level
  )
}

/** The gain at which the preamp's own noise equals the converter's. */
export function trueCrossover(simulated: SimulatedInterface): number {
  const { input } = simulated
  let gain = input.gainMin
  for (let round = 0; round < 40; round++) {
    const excess = einExcess({ ein: dbu(einAt(simulated, gain)), einWeighting: 'A' }) ?? thermalNoiseA(EIN_RESISTANCE)
    gain = noiseCrossover(input, -input.converterNoise, excess)
  }
  return gain
}

/** Round trip with buffers both ways, frames. */
export const trueRoundTrip = (simulated: SimulatedInterface, buffers: number, bufferFrames: number): number =>
  buffers * bufferFrames + simulated.latencyFrames
