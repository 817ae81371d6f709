import { seeded } from '../numeric/random'
import { AUDIO_BAND, aWeighting, hz } from '../units'
import { syntheticVoice } from '../signals/voice'

/** What a simulated performer sounds like where it is measured, dBFS; the noise A-weighted. */
export interface Performance {
  /** RMS of the loudest passage (AES17). */
  average: number
  peak: number
  /** How much louder than that the take gets, dB. */
  surge: number
  noise: number | null
  /** Where the chain clips, dBFS at the place of the meter. */
  clipsAt: number
}

/** How it plays just now: as mostly, the loudest passage, or louder than was ever rehearsed. */
export type Playing = 'usual' | 'loudest' | 'surge' | 'silent'

/** The rest of a piece is so much quieter than its loudest passage, dB (common practice, no source). */
const USUAL = -9

/** A phrase that is played over and over, and the rest between, in which the floor is heard, s. */
const PHRASE = 12
const REST = 2.5

/**
 * A performer that plays for as long as is asked, in blocks: a made-up voice whose loudest passage has just the level and the peak
 * that a chain gives it, with the chain’s noise under it, cut where the chain clips. The same seed plays the same.
 */
export class SimulatedPerformer {
  playing: Playing = 'usual'
  private readonly phrase: Float64Array
  private crest = NaN
  private shaped: Float64Array
  private at = 0
  private gain = 0
  private readonly random: () => number
  private readonly noiseFactor: number

  constructor(
    private readonly sampleRate: number,
    private performance: Performance,
    seed = 1,
  ) {
    this.random = seeded(seed)
    this.phrase = syntheticVoice(sampleRate, PHRASE, 90 + 60 * this.random(), seed)
    this.noiseFactor = 1 / Math.sqrt(weightedPart(sampleRate))
    this.shaped = this.phrase
    this.setTo(performance)
    this.gain = this.wanted()
  }

  /** The chain as it is set now. */
  setTo(performance: Performance): void {
    this.performance = performance
    const crest = performance.peak - performance.average + SINE_CREST
    if (Math.abs(crest - this.crest) < 0.01) return
    this.crest = crest
    this.shaped = withCrest(this.phrase, crest)
  }

  /** The next samples. Hands do not jump: a turned gain is followed within some milliseconds. */
  block(length: number): Float64Array {
    const { noise, clipsAt } = this.performance
    const hiss = noise === null ? 0 : this.noiseFactor * 10 ** (noise / 20) * Math.SQRT1_2
    const limit = Math.min(1, 10 ** (clipsAt / 20))
    const wanted = this.wanted()
    const follow = 1 - Math.exp(-1 / (0.02 * this.sampleRate))
    const out = new Float64Array(length)
    for (let i = 0; i < length; i++) {
      this.gain += follow * (wanted - this.gain)
      const x = this.gain * (this.shaped[this.at] ?? 0) + hiss * gaussian(this.random)
      out[i] = Math.max(-limit, Math.min(limit, x))
      if (++this.at >= this.shaped.length + REST * this.sampleRate) this.at = 0
    }
    return out
  }

  private wanted(): number {
    const { peak, surge } = this.performance
    switch (this.playing) {
      case 'silent':
        return 0
      case 'usual':
        return 10 ** ((peak + USUAL) / 20)
      case 'loudest':
        return 10 ** (peak / 20)
      case 'surge':
        return 10 ** ((peak + surge) / 20)
    }
  }
}

/** A sine’s crest factor, dB: an average in dBFS is that of a sine. */
const SINE_CREST = 10 * Math.log10(2)

/** A sound with a peak of 1 and another crest factor: every sample raised to a power, which is found by halving. */
function withCrest(sound: Float64Array, crest: number): Float64Array {
  let [low, high] = [0.05, 20]
  for (let i = 0; i < 50; i++) {
    const middle = Math.sqrt(low * high)
    if (crestOf(sound, middle) < crest) low = middle
    else high = middle
  }
  return raised(sound, Math.sqrt(low * high))
}

const raised = (sound: Float64Array, power: number): Float64Array =>
  sound.map((x) => Math.sign(x) * Math.abs(x) ** power)

/** Of the loudest three seconds, as a passage is measured. */
function crestOf(sound: Float64Array, power: number): number {
  const third = Math.floor(sound.length / 4)
  const sums = [0, 1, 2, 3].map((part) => {
    let sum = 0
    for (let i = part * third; i < (part + 1) * third; i++) sum += Math.abs(sound[i] as number) ** (2 * power)
    return sum / third
  })
  return -10 * Math.log10(Math.max(...sums))
}

/** Box and Muller’s normal law with a standard deviation of 1. */
const gaussian = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random() || Number.EPSILON)) * Math.cos(2 * Math.PI * random())

/** What A-weighting leaves of the power of white noise at a sample rate (IEC 61672-1). */
function weightedPart(sampleRate: number): number {
  const STEPS = 2000
  const top = Math.min(AUDIO_BAND.high, sampleRate / 2)
  let sum = 0
  for (let i = 0; i < STEPS; i++) {
    const frequency = AUDIO_BAND.low + ((i + 0.5) / STEPS) * (top - AUDIO_BAND.low)
    sum += 10 ** (aWeighting(hz(frequency)) / 10)
  }
  return (sum / STEPS) * ((top - AUDIO_BAND.low) / (sampleRate / 2))
}
