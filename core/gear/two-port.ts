import type { Db, Level } from '../units'
import type { Curve } from './processor/curve'

export type SignalUnit = 'dBSPL' | 'dBu' | 'dBFS'

/** One noise of a stage, as a level at that stage's output, A-weighted, 20 Hz–20 kHz. */
export interface NoiseSource {
  readonly name: NoiseName
  readonly level: Level
}
export type NoiseName =
  | 'room'
  | 'self-noise'
  | 'thermal'
  | 'source'
  | 'booster'
  | 'preamp'
  | 'output-stage'
  | 'link'
  | 'converter'
  | 'word-length'

/** The programme where it enters a strip, with the noise that comes with it. */
export interface Programme {
  readonly stage: string
  readonly unit: SignalUnit
  readonly average: Level
  readonly peak: Level
  readonly surgePeak: Level
  /** The level at which whatever takes it up overloads; an electric or digital source's own limit. */
  readonly ceiling: Level | null
  readonly noise: readonly NoiseSource[]
  /** The sound that it is; two strips with the same one carry one sound. Its stage where it is left out. */
  readonly origin?: string | undefined
}

/** What a directional microphone takes in, against an omnidirectional one spoken at from the front. */
export interface Pickup {
  /** Of the source, at its angle. */
  readonly programme: Db
  /** Of the room's diffuse sound. */
  readonly room: Db
}

/**
 * What every device, set as it is set, comes down to: the cascade knows nothing else.
 *
 * Levels of the input side are in the unit of the stage before, those of the output side in `unit`; `gain` takes
 * the one into the other, so it also carries the conversion of references (a microphone's from dB SPL to dBu).
 */
export interface TwoPort {
  readonly stage: string
  readonly unit: SignalUnit
  readonly gain: Db
  readonly pickup?: Pickup | undefined
  /** A static curve behind the input's ceiling and before the gain: a compressor's, an expander's, a limiter's. */
  readonly curve?: Curve | undefined
  /** At the input's own terminal, before the curve. */
  readonly inputCeiling: Level | null
  readonly outputCeiling: Level | null
  readonly noise: readonly NoiseSource[]
}
