import type { Session } from '../session'
import { renderStrip } from './chain'
import type { Effects } from './effects'
import { withEffects } from './effects'
import { toEars } from './to-ears'

/** Something to be heard: a strip of a session with a simulated performer, or a recording; with what a fault does to it. */
export interface Hearing {
  from: { session: Session; strip: string; silent?: boolean } | { recording: Float64Array }
  /** The programme, then a pause of nothing but noise, s. */
  seconds: number
  pauseSeconds?: number
  /**
   * The pause is played so much louder than it is, dB, yet never louder than the programme: most floors are too low to be heard
   * beside it.
   */
  pauseRaised?: number
  effects?: Effects
  seed?: number
}

/** A hearing as a recording would have it: dBFS as the chain gives them. The same seed gives the same samples. */
export function recorded(hearing: Hearing, sampleRate: number): [Float64Array, Float64Array] {
  const { from, seconds, pauseSeconds = 0, effects = {}, seed = 5 } = hearing
  // What is clocked faster is made with fewer frames, and played as if it had all of them.
  const made = sampleRate / (effects.ratio ?? 1)
  const sound =
    'recording' in from
      ? from.recording
      : renderStrip(from.session, from.strip, {
          sampleRate: made,
          programmeSeconds: seconds,
          pauseSeconds,
          seed,
          ...(from.silent && { silent: true }),
        })
  return withEffects(sound, made, effects, seed)
}

/** Hearings one after the other for somebody’s ears: as loud against each other as they are, safe, faded. */
export function audible(
  hearings: readonly Hearing[],
  sampleRate: number,
  level?: number,
): Float64Array<ArrayBuffer>[][] {
  const sounds = hearings.map((hearing) => {
    const channels = recorded(hearing, sampleRate)
    const { pauseSeconds = 0, pauseRaised = 0, effects } = hearing
    const pause = Math.round((pauseSeconds * sampleRate) / (effects?.ratio ?? 1))
    return pause > 0 && pauseRaised > 0 ? channels.map((each) => raised(each, pause, pauseRaised)) : channels
  })
  return toEars(sounds, sampleRate, level) as Float64Array<ArrayBuffer>[][]
}

/** The pause at the end brought up, no further than to the programme’s own level. */
function raised(samples: Float64Array, pause: number, by: number): Float64Array {
  const from = samples.length - pause
  const level = (part: Float64Array) => 10 * Math.log10(part.reduce((sum, x) => sum + x * x, 0) / part.length)
  const [programme, quiet] = [level(samples.subarray(0, from)), level(samples.subarray(from))]
  const up = Number.isFinite(quiet) ? Math.max(0, Math.min(by, programme - quiet)) : 0
  const gain = 10 ** (up / 20)
  return samples.map((x, i) => (i < from ? x : gain * x))
}
