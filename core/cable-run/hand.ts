/** Something that only a hand can do. */
export type Move =
  /** `problem` says what was heard instead. */
  | { do: 'cable'; problem: CableProblem | null }
  | { do: 'gain'; to: GainMark; hint: GainHint | null }
  /** Into an input, counted from 0; `isCableIn` where the cable was still heard there. */
  | { do: 'plug'; input: number; isCableIn: boolean }
  | { do: 'buffer'; frames: number }
  /** Read the voltage of the tone, V; `played` in dBFS. */
  | { do: 'meter'; played: number }
  /** Put a calibrator on the microphone, or sound it; `level` in dB SPL. */
  | { do: 'microphone'; level: number }

/** Where the gain is to stand: at a knob position (hours, 7 to 17), or where the unit’s own scale says so many dB. */
export type GainMark = { position: number } | { said: number }

export type GainHint = 'turned-down' | 'cable-out'

export type CableProblem =
  | { code: 'none' }
  /** Something is heard that was not played. */
  | { code: 'other-sound'; input: number }
  | { code: 'loose'; output: number; input: number }
  | { code: 'samples-lost' }
  | { code: 'wrong-input'; output: number; input: number; wanted: number }

/** What came of a move: done, with the number that was asked for, or left out. */
export type Answer = { done: true; value?: number } | { done: false }

/** Whoever stands at the interface. */
export interface Hand {
  /** What is measured now, and how much of the whole run is done, 0 to 1. */
  progress: (doing: string, part: number) => void
  /** Asks for a move. @returns what has come of it so far; `null` while it is under way */
  ask: (move: Move) => () => Answer | null
  /** The move was answered, or heard: nothing is asked for any more. */
  settled: () => void
}
