import type { Loopback } from '../measure/loopback'
import { measureLoopback } from '../measure/loopback'
import { measureNoise } from '../measure/noise'
import type { Tone } from '../measure/tone'
import { measureTone } from '../measure/tone'
import { faded, sine } from '../signals/generate'
import { makeSignal } from '../signals/signal'
import type { Conductor } from './conductor'
import type { FoundCable, FoundRoundTrip, IdleNoise } from './findings'
import { isUnsteady } from './find-cables'
import type { LockedTone } from './lock-in'
import { lockedTone } from './lock-in'

/** A tone that no mains line falls on, and that holds whole periods in a block, Hz. */
export const TONE = 970
/** AES17, Hz. */
export const AES17_TONE = 997
/** Nothing is played louder, dBFS. */
const LOUDEST = -1
/** Edges of a tone, which are not looked at, s. */
const EDGE = 0.06
/** A look at the loop takes so long, s. */
const LOOK = 0.6
/** About to clip, part of full scale. */
const HOT = 0.9

/** A tone that is looked for is to read this, dBFS; one that is so much weaker is crosstalk, dB. */
const [IN_BETWEEN, GONE] = [-30, 30]

/** Of a level of noise: band edges and weighting between meters (common practice, no source), dB. */
export const NOISE_U = 0.08
/** Of a lag, frames. */
const LAG_U = 0.03
/** A lag whose passes differ by more has lost samples, frames. */
const STEADY = 2
/** A clock that is off by more is another clock, ppm. */
const DRIFTS = 3

/** The way over the cable as it stands: what is played comes back late by the lag, and changed by the gain. */
export class CableLoop {
  /** Frames. */
  lag = 0
  /** Recorded over played at the gain as it stands, dB. */
  gain: number

  constructor(
    readonly conductor: Conductor,
    readonly cable: FoundCable,
  ) {
    this.gain = cable.loopGain
  }

  get sampleRate(): number {
    return this.conductor.rig.sampleRate
  }

  /** Plays a signal; each input from where it comes back. */
  async played(signal: Float64Array, output = this.cable.output): Promise<Float64Array[]> {
    const recorded = await this.conductor.take(this.conductor.onOutput(output, signal), signal.length)
    const from = Math.max(0, Math.round(this.lag))
    return recorded.map((samples) => samples.subarray(from, from + signal.length))
  }

  /** What comes back over the cable. */
  returned = async (signal: Float64Array): Promise<Float64Array> =>
    (await this.played(signal))[this.cable.input] as Float64Array

  /** So loud that the input reads a level, dBFS, and never over the loudest. */
  levelFor = (read: number): number => Math.min(LOUDEST, read - this.gain)

  /** A tone of so many seconds between its edges. */
  toneOf = (frequency: number, level: number, seconds: number): Float64Array =>
    faded(sine(this.sampleRate, seconds + 2 * EDGE, frequency, level), this.sampleRate, 0.02)

  withoutEdges(samples: Float64Array): Float64Array {
    const edge = Math.round(EDGE * this.sampleRate)
    return samples.subarray(edge, samples.length - edge)
  }

  /** A tone in what came back; one that jumps is remembered. */
  locked(samples: Float64Array, frequency: number): LockedTone | null {
    const middle = this.withoutEdges(samples)
    const found = lockedTone(middle, this.sampleRate, frequency)
    if (found) this.watch(found, middle.length / this.sampleRate)
    return found
  }

  private watch(tone: LockedTone, seconds: number) {
    if (tone.jumps) this.conductor.doubts.add('samples-lost')
    else if (isUnsteady(tone, 10 * seconds)) this.conductor.doubts.add('loose')
  }

  /** The tone of AES17, and what comes back with it. */
  async fittedTone(read: number, seconds: number): Promise<Tone | null> {
    const recorded = await this.returned(this.toneOf(AES17_TONE, this.levelFor(read), seconds))
    const found = measureTone(this.withoutEdges(recorded), this.sampleRate)
    return 'code' in found ? null : found
  }

  /** One look: the tone in it, and whether it is about to clip. A level that jumps is the hand’s. */
  async look(played: number): Promise<{ tone: LockedTone | null; isHot: boolean }> {
    const middle = this.withoutEdges(await this.returned(this.toneOf(TONE, played, LOOK)))
    return { tone: lockedTone(middle, this.sampleRate, TONE), isHot: middle.some((x) => Math.abs(x) > HOT) }
  }

  /** Whether the tone still comes back. */
  async isHeard(): Promise<boolean> {
    const played = this.levelFor(IN_BETWEEN)
    const { tone } = await this.look(played)
    return tone !== null && tone.level > IN_BETWEEN - GONE
  }

  /** The noise while nothing plays. */
  async idle(seconds: number): Promise<IdleNoise | null> {
    const frames = Math.round(seconds * this.sampleRate)
    const recorded = (await this.conductor.take([], frames))[this.cable.input] as Float64Array
    const found = measureNoise(recorded.subarray(0, frames), this.sampleRate)
    if ('code' in found) return null
    return {
      value: found.withoutHum,
      u: Math.hypot(found.deviation / Math.sqrt(Math.max(1, found.seconds)), NOISE_U),
      hum: found.hum,
    }
  }

  /** The lag by a maximum-length sequence that is played five times; `null` where samples were lost, which is remembered. */
  async roundTrip(bufferFrames: number): Promise<{ found: Loopback | null; value: FoundRoundTrip | null }> {
    const { conductor, cable, sampleRate } = this
    const signal = makeSignal({ kind: 'sequence', level: this.levelFor(-12) }, sampleRate)
    const recorded = await conductor.take(conductor.onOutput(cable.output, signal), signal.length)
    const found = measureLoopback(signal, recorded[cable.input] as Float64Array, sampleRate)
    if (!found) return { found, value: null }
    if (found.spreadFrames > STEADY) {
      conductor.doubts.add('samples-lost')
      return { found, value: null }
    }
    const drift = found.driftPpm ?? 0
    if (Math.abs(drift) > DRIFTS) conductor.doubts.add('two-clocks')
    // With two clocks the lag is another one at the beginning than at the end.
    const crept = (Math.abs(drift) * 1e-6 * signal.length) / Math.sqrt(3)
    return {
      found,
      value: {
        bufferFrames,
        value: found.lagFrames,
        u: Math.hypot(found.spreadFrames / Math.sqrt(3), LAG_U, crept),
        spread: found.spreadFrames,
        drift,
      },
    }
  }
}
