import { powerSum } from '../numeric/power'
import type { AnalogueInput } from '../gear'
import { inForce } from '../model'
import type { Db, Dbu } from '../units'
import { db, dbu } from '../units'
import { einExcess, einWeighted } from '../gear/equivalent-input-noise'
import { fullScaleAt, noiseCrossover } from '../gear/interface/input-gain'

/** What an input holds at one gain. */
export interface GainMapPoint {
  gain: number
  /** Level that reads 0 dBFS, dBu. */
  maximumInput: Dbu
  /** Noise referred to the input with the EIN's own resistor in it, dBu(A); `null` where neither EIN nor dynamic range is known. */
  noise: Dbu | null
  /** From the one to the other, dB. */
  range: Db | null
}

/** An input's maximum level and noise over its whole range of gain. */
export interface GainMap {
  points: GainMapPoint[]
  /** Where the preamp's own noise equals the converter's; `null` where it cannot be told or lies outside the range. */
  crossover: Db | null
}

/** Points between the ends, enough for curves without corners. */
const POINTS = 61

/**
 * The gain map of an analogue input, pad out: maximum input level FS − (G − G_min) and input-referred noise
 * 10 lg(10^(EIN/10) + 10^((FS_G − DR)/10)).
 * Example: 0 dBFS at +15 dBu, EIN −127 dBu(A), DR 110 dB: at 0 dB gain +15 and −94.99 dBu(A), at 60 dB −45 and −126.97.
 */
export function gainMap(input: AnalogueInput): GainMap {
  const specs = inForce(input)
  const { gainMin, gainMax, dynamicRange } = specs
  const known = specs.ein === undefined ? null : { ...specs, ein: specs.ein }
  const ein = known && einWeighted(known.ein, specs.einWeighting)
  const noiseAt = (fullScale: number): Dbu | null => {
    const parts = [ein, dynamicRange === undefined ? null : fullScale - dynamicRange].filter((each) => each !== null)
    const sum = powerSum(parts.map((level) => ({ level })))
    return sum === null ? null : dbu(sum)
  }
  const count = gainMax > gainMin ? POINTS : 1
  const points = Array.from({ length: count }, (_, i): GainMapPoint => {
    const gain = gainMin + ((gainMax - gainMin) * i) / Math.max(1, count - 1)
    const maximumInput = fullScaleAt(specs, gain)
    const noise = noiseAt(maximumInput)
    return { gain, maximumInput, noise, range: noise === null ? null : db(maximumInput - noise) }
  })
  const excess = known && einExcess(known)
  const crossover = excess === null || dynamicRange === undefined ? null : noiseCrossover(specs, dynamicRange, excess)
  return { points, crossover: crossover !== null && crossover > gainMin && crossover < gainMax ? crossover : null }
}
