import { measureBalance } from '../balance'
import { amplitudeToDbfs, blockPowers, meanSquareToDbfs } from '../block-levels'
import type { Hum } from '../hum'
import { findHum } from '../hum'
import { ClippedRuns } from '../levels/clipped-runs'
import { SpectrumMeter, weightedPower } from '../levels/spectrum'
import { measureTone } from '../tone'
import type { WavFault } from '../wav/format'
import type { HeardComb } from './comb'
import { findComb } from './comb'
import type { Dropouts } from './dropouts'
import { findDropouts } from './dropouts'

/** What can be wrong in a recording, as far as the recording itself tells. Levels in dBFS (AES17). */
export interface Heard {
  seconds: number
  channels: HeardChannel[]
  /** Channels, counted from 1, in which nothing is, while there is something in another. */
  silent: number[]
  /** Of two channels with one sound: whether they go the same way. */
  polarity: 'same' | 'opposite' | null
}

export interface HeardChannel {
  peak: number | null
  /**
   * Runs at the extreme – or samples, where noise was added behind –, and where that lies: below full scale it was clipped before
   * the converter.
   */
  clipped: { count: number; level: number } | null
  dropouts: Dropouts
  /** Constant offset; `null` where there is none worth a word. */
  dc: number | null
  comb: HeardComb | null
  hum: Hum | null
  /** A-weighted noise of the quietest three seconds, with whatever hums in it; `null` where nothing is quiet. */
  floor: number | null
  /** A steady tone, where the recording is one. */
  tone: { frequency: number; level: number } | null
}

/** Silence: under anything that a converter gives, dBFS. */
const SILENT = -120
/** An offset below that is nothing, dBFS (common practice, no source). */
const LEAST_DC = -60
/** The quietest stretch lies at least so far below the loudest: else it is no pause, dB (common practice, no source). */
const PAUSE = 12
const [BLOCK_SECONDS, PAUSE_SECONDS] = [0.25, 2]
/** A line so far under the floor is one of the floor’s own, dB: two seconds scatter. */
const BURIED = 12
/** A tone has that much more than all that is left of the recording without it, dB. */
const PURE = -20

/** Listens to one recording of one or two channels. */
export function listenTo(channels: readonly Float64Array[], sampleRate: number): Heard | WavFault {
  const [first] = channels
  if (!first || first.length < sampleRate)
    return {
      code: 'too-short',
      message: 'The recording lasts less than a second. Record ten seconds of what is wrong.',
    }
  const heard = channels.map((samples) => listenToChannel(samples, sampleRate))
  const isSilent = ({ peak }: HeardChannel) => peak === null || peak < SILENT
  const silent = heard.flatMap((each, i) => (isSilent(each) ? [i + 1] : []))
  const [a, b] = channels
  const balance = a && b && silent.length === 0 ? measureBalance(a, b, sampleRate) : null
  return {
    seconds: first.length / sampleRate,
    channels: heard,
    silent: silent.length < heard.length ? silent : heard.length > 1 ? [] : silent,
    polarity: !balance || 'code' in balance || balance.likeness < LIKE ? null : balance.sameWay ? 'same' : 'opposite',
  }
}
/** Less alike they are two sounds. */
const LIKE = 0.7

/** What can be wrong in one channel of a recording of a second or more. */
export function listenToChannel(samples: Float64Array, sampleRate: number): HeardChannel {
  const peak = samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0)
  const mean = samples.reduce((sum, x) => sum + x, 0) / samples.length
  const dc = amplitudeToDbfs(Math.abs(mean))
  const tone = measureTone(samples, sampleRate)
  const isTone =
    !('code' in tone) && tone.seconds > 0.5 * (samples.length / sampleRate) && (tone.thdN ?? -Infinity) < PURE
  const pause = pauseOf(samples, sampleRate)
  const floor = pause && meanSquareToDbfs(weightedPower(pause).weighted)
  const hum = pause && findHum(pause)
  return {
    peak: amplitudeToDbfs(peak),
    clipped: clippedOf(samples, peak),
    dropouts: findDropouts(samples, sampleRate),
    dc: dc !== null && dc > LEAST_DC ? dc : null,
    comb: isTone ? null : findComb(samples, sampleRate),
    hum: hum && floor !== null && hum.level > floor - BURIED ? hum : null,
    floor,
    tone: isTone && !('code' in tone) ? { frequency: tone.frequency, level: tone.level } : null,
  }
}

function clippedOf(samples: Float64Array, peak: number): HeardChannel['clipped'] {
  const runs = new ClippedRuns({ bits: 24, encoding: 'integer' })
  let [last, top, below] = [0, 0, 0]
  samples.forEach((x, i) => {
    if (x >= runs.above.threshold || runs.above.running) runs.above.next(x, last, i)
    if (-x >= runs.below.threshold || runs.below.running) runs.below.next(-x, -last, i)
    last = x
    const size = Math.abs(x)
    if (size > TOP * peak) top++
    else if (size > UNDER_TOP * peak) below++
  })
  runs.end()
  const { count } = runs.found(peak)
  const level = amplitudeToDbfs(peak)
  if (level === null || peak < QUIET_PEAK) return null
  if (count > 0) return { count, level }
  // Clipped before a noise was added, no two samples are alike; yet far more stand at the top than right under it. A sine has 0.6
  // times as many.
  return top >= LEAST_AT_TOP && top > 1.5 * below ? { count: top, level } : null
}
const [TOP, UNDER_TOP] = [0.985, 0.9]
const LEAST_AT_TOP = 30
const QUIET_PEAK = 0.01

/** A fine spectrum of the quietest two seconds, where they are a pause. */
function pauseOf(samples: Float64Array, sampleRate: number) {
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
/** All of it softer than that: nothing was played, dBFS. */
const QUIET = -45
/** Hz; fine enough to tell the mains’ multiples. */
const FINE = 0.8
