/** The input that is measured, as its data sheet has it. */
export interface Subject {
  /** Its channel in the recording, from 0. */
  input: number
  gainMin: number
  gainMax: number
  /** Of a gain that is set in steps on a scale; 0 for a knob. */
  gainStep: number
  /** The buffer that is set, frames. */
  bufferFrames: number
}
