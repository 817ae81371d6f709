import type { WavFault } from './wav/format'

/** Something that takes a WAV file piece by piece and then says what it found. */
export interface Meter<R> {
  push: (bytes: Uint8Array) => void
  end: () => R
}

/** A finding with what was skipped on the way, or why there is none. */
export type Measured<T> = { ok: true; found: T; sampleRate: number; remarks: string[] } | { ok: false; fault: WavFault }
