import { blockPowers, meanSquareToDbfs } from '../block-levels'
import type { PowerSpectrum } from '../levels/spectrum'
import { SpectrumMeter, weightedPower } from '../levels/spectrum'

/** The quietest stretch lies at least so far below the loudest: else it is no pause, dB (common practice, no source). */
const PAUSE = 12
const [BLOCK_SECONDS, PAUSE_SECONDS] = [0.25, 2]
/** All of it softer than that: nothing was played, dBFS. */
const QUIET = -45
/** Hz; fine enough to tell the mains’ multiples. */
const FINE = 0.8

/** A fine spectrum of the quietest two seconds, where they are a pause. */
export function pauseOf(samples: Float64Array, sampleRate: number): PowerSpectrum | null {
  const block = Math.round(BLOCK_SECONDS * sampleRate)
  const powers = blockPowers(samples, block)
  const length = PAUSE_SECONDS / BLOCK_SECONDS
  if (powers.length < length) return null
  let best = { from: 0, power: Infinity }
  for (let from = 0; from + length <= powers.length; from++) {
    const power = powers.slice(from, from + length).reduce((sum, each) => sum + each, 0) / length
    if (power < best.power) best = { from, power }
  }
  const loudest = Math.max(...powers)
  // A recording of nothing but a pause is one too: then all of it is alike.
  const isPause = best.power < loudest / 10 ** (PAUSE / 10) || loudest < 10 ** (QUIET / 10) / 2
  if (!isPause || best.power === 0) return null
  const meter = new SpectrumMeter(sampleRate, FINE)
  const quiet = samples.subarray(best.from * block, (best.from + length) * block)
  meter.frames(quiet, quiet.length)
  return meter.end()
}

/** A-weighted noise of a pause, with whatever hums in it, dBFS(A). */
export const floorOf = (pause: PowerSpectrum | null): number | null =>
  pause && meanSquareToDbfs(weightedPower(pause).weighted)
