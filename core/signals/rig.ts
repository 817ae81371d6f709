/** An interface that plays and records at once: the one on the desk, or a simulated one. */
export interface Rig {
  /** Hz. */
  readonly sampleRate: number
  /** Output channels that can be played to. */
  readonly outputs: number
  /** Input channels that are recorded. */
  readonly inputs: number
  /**
   * Plays one signal to each output, `null` for silence, and records every input from the first frame played to half a second after
   * the last one.
   * @param goesOn the signals are repeated without a gap until the next take, for a meter that is read by eye
   */
  take: (played: readonly (Float64Array | null)[], frames: number, goesOn: boolean) => Promise<Float64Array[]>
}

/** Recorded after the last frame played, s: longer than a round trip. */
export const TAIL = 0.5

/** What an audio thread is asked to play, by output; how long, in frames, and whether it is repeated until the next task. */
export interface RigTask {
  played: (Float32Array<ArrayBuffer> | null)[]
  frames: number
  goesOn: boolean
}

/** What came in meanwhile, by input. */
export interface RigMessage {
  recorded: Float32Array<ArrayBuffer>[]
}
