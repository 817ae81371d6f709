import { measureBalance } from '../balance'
import { amplitudeToDbfs } from '../block-levels'
import type { Hum } from '../hum'
import { measureTone } from '../tone'
import type { WavFault } from '../wav/format'
import type { Clipped } from './clipped'
import { clippedIn } from './clipped'
import type { HeardComb } from './comb'
import { findComb } from './comb'
import type { Dropouts } from './dropouts'
import { findDropouts } from './dropouts'
import { humIn } from './hum-in'
import { floorOf, pauseOf } from './pause'

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
   * Runs at the extreme, or flat tops where a noise was added behind, and where that lies: below full scale it was clipped before the
   * converter.
   */
  clipped: Clipped | null
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
  return {
    peak: amplitudeToDbfs(peak),
    clipped: clippedIn(samples, peak),
    dropouts: findDropouts(samples, sampleRate),
    dc: dc !== null && dc > LEAST_DC ? dc : null,
    comb: isTone ? null : findComb(samples, sampleRate),
    hum: humIn(samples, sampleRate, pause),
    floor: floorOf(pause),
    tone: isTone && !('code' in tone) ? { frequency: tone.frequency, level: tone.level } : null,
  }
}
