import { powerSum } from '../numeric/power'
import { einExcess, EIN_RESISTANCE, wordLengthNoise } from '../chain/noise'
import { loadingGain } from '../chain/loading'
import { WHITE_UNDER_A, dbu, ohms, thermalNoiseA } from '../units'
import type { StandIn } from './stand-in'

/** dBu that reads 0 dBFS at a gain truly given. */
export const fullScaleAt = ({ input }: StandIn, gain: number): number => input.fullScale - (gain - input.gainMin)

/** EIN at a gain truly given, dBu(A). */
export function einAt({ input: { ein, einRise, gainMin, gainMax } }: StandIn, gain: number): number {
  return gainMax > gainMin ? ein + (einRise * (gainMax - gain)) / (gainMax - gainMin) : ein
}

/** What a source loses into the input, as a gain, dB. */
export const loadedBy = ({ input }: StandIn, sourceOhms: number): number =>
  loadingGain(ohms(sourceOhms), ohms(input.impedance))

/** Noise at the input with a source of some ohms, as dBFS(A): that of the source and that of the preamp. */
export function inputNoise(standIn: StandIn, sourceOhms: number, gain: number): { level: number }[] {
  const excess = einExcess(dbu(einAt(standIn, gain)))
  const heard = (level: number) => ({ level: level - fullScaleAt(standIn, gain) })
  return [
    ...(sourceOhms > 0 ? [heard(thermalNoiseA(ohms(sourceOhms)))] : []),
    ...(excess === null ? [] : [heard(excess)]),
  ]
}

/** Everything without hum that the recording of an idle input holds, dBFS(A). */
export function idleNoise(standIn: StandIn, sourceOhms: number, gain: number): number {
  const word = wordLengthNoise(standIn.wordLength)
  return powerSum([
    ...inputNoise(standIn, sourceOhms, gain),
    { level: standIn.input.converterNoise },
    ...(word === null ? [] : [{ level: word }]),
  ]) as number
}

/** The same with the output plugged in, whose converter adds its own. */
export function loopNoise(standIn: StandIn, gain: number): number {
  const { output } = standIn
  const outputNoise = output.noise + output.fullScale + loadedBy(standIn, output.impedance) - fullScaleAt(standIn, gain)
  return powerSum([{ level: idleNoise(standIn, output.impedance, gain) }, { level: outputNoise }]) as number
}

/** Total harmonic distortion and noise of a tone recorded through the loop at a level, dB against it; 20 Hz to 20 kHz, unweighted. */
export function trueThdN(standIn: StandIn, gain: number, level: number): number {
  const { second, third } = standIn.input.harmonics
  return (
    (powerSum([
      { level: loopNoise(standIn, gain) - WHITE_UNDER_A },
      { level: 2 * level - second },
      { level: 3 * level - third },
    ]) as number) - level
  )
}

/** The gain at which the preamp's own noise equals the converter's. */
export function trueCrossover(standIn: StandIn): number {
  const { input } = standIn
  let gain = input.gainMin
  for (let round = 0; round < 40; round++) {
    gain =
      input.fullScale +
      input.converterNoise -
      (einExcess(dbu(einAt(standIn, gain))) ?? thermalNoiseA(EIN_RESISTANCE)) +
      input.gainMin
  }
  return gain
}

/** Round trip with buffers both ways, frames. */
export const trueRoundTrip = (standIn: StandIn, buffers: number, bufferFrames: number): number =>
  buffers * bufferFrames + standIn.latencyFrames
