import type { Hum } from '../measure/hum'
import type { ResponsePoint } from './response'
import type { GainMark } from './hand'

/** A cable from an output channel to an input channel, both counted from 0. */
export interface FoundCable {
  output: number
  input: number
  /** Recorded over played, dB. */
  loopGain: number
  /** Whether its level jumps: a loose contact. */
  isLoose: boolean
  /** Whether samples were lost on the way. */
  losesSamples: boolean
}

/** A value with its standard uncertainty. */
export interface Value {
  value: number
  u: number
}

/** The noise of an input in which nothing plays, dBFS(A), and the hum in it. */
export interface IdleNoise extends Value {
  hum: Hum | null
}

/** A gain that a hand set: over the lowest, dB, and the noise there with the cable in. */
export interface FoundMark {
  mark: GainMark
  gain: Value
  noise: IdleNoise
}

/** The round trip at a buffer, frames. */
export interface FoundRoundTrip extends Value {
  bufferFrames: number
  /** Half the range of the passes, frames. */
  spread: number
  /** How the lag grows, ppm. */
  drift: number
}

export interface FoundDistortion extends Value {
  /** The tone as it was recorded, dBFS. */
  read: number
  second: number | null
  third: number | null
}

/** What makes figures of a run doubtful. */
export type Doubt =
  /** Frames went missing while it ran. */
  | 'samples-lost'
  /** A level jumped: the cable, or a plug. */
  | 'loose'
  /** Two clocks. */
  | 'two-clocks'

/** All that a run found, in the terms of the recording; what it means in dBu is worked out from it. */
export interface CableFindings {
  sampleRate: number
  cable: FoundCable
  second: FoundCable | null
  /** What reads 0 dBFS against what plays 0 dBFS, at the lowest gain, dB: recorded over played. */
  loopGain: Value
  linearity: Value & { steps: { read: number; off: number }[] }
  response: ResponsePoint[]
  dynamicRange: Value | null
  distortion: FoundDistortion[]
  polarity: 1 | -1
  idle: IdleNoise | null
  roundTrips: FoundRoundTrip[]
  /** Second cable’s way over the first one’s, dB. */
  balance: Value | null
  /** What of the first output comes to the second input, dB under the first; `isFloor` where only noise is seen there. */
  crosstalk: (Value & { frequency: number; isFloor: boolean })[]
  marks: FoundMark[]
  /** With 150 Ω at the highest gain. */
  plug: (IdleNoise & { gain: number }) | null
  /** V, while so many dBFS were played. */
  meter: { volts: number; played: number } | null
  /** What reads of a known sound, dBFS, at the lowest gain. */
  microphone: (Value & { level: number; give: number }) | null
  doubts: Doubt[]
  /** Of signal, that was played or waited for. */
  seconds: number
}
