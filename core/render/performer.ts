import { seeded } from '../numeric/random'
import { syntheticVoice } from '../signals/voice'
import { gaussian, noiseSize } from './noise'
import { SINE_CREST, withCrest } from './programme'

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

/** The loudest three seconds of a phrase are its loudest passage. */
const PARTS = 4

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

  constructor(
    private readonly sampleRate: number,
    private performance: Performance,
    seed = 1,
  ) {
    this.random = seeded(seed)
    this.phrase = syntheticVoice(sampleRate, PHRASE, 90 + 60 * this.random(), seed)
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
    this.shaped = withCrest(this.phrase, crest, PARTS)
  }

  /** The next samples. Hands do not jump: a turned gain is followed within some milliseconds. */
  block(length: number): Float64Array {
    const { noise, clipsAt } = this.performance
    const hiss = noise === null ? 0 : noiseSize(noise, this.sampleRate)
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
