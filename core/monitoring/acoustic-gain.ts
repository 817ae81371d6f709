/** Distances of a room with a loudspeaker, m. */
export interface AcousticLayout {
  /** D₀ */
  sourceToListener: number
  /** D₁ */
  microphoneToLoudspeaker: number
  /** D₂ */
  loudspeakerToListener: number
  /** Dₛ */
  sourceToMicrophone: number
  /** Number of open microphones, NOM. */
  openMicrophones: number
}

/** Kept back from the brink of feedback, dB. */
const STABILITY_MARGIN = 6

/**
 * Potential acoustic gain: how much louder a source can be made at the listener before it feeds back,
 * 20 lg(D₀·D₁/(D₂·Dₛ)) − 10 lg NOM − 6 (Davis and Patronis, Sound System Engineering; from memory).
 * Example: 6, 4, 7 and 0.3 m, one microphone: 15.16 dB.
 */
export function potentialAcousticGain({
  sourceToListener,
  microphoneToLoudspeaker,
  loudspeakerToListener,
  sourceToMicrophone,
  openMicrophones,
}: AcousticLayout): number {
  return (
    20 * Math.log10((sourceToListener * microphoneToLoudspeaker) / (loudspeakerToListener * sourceToMicrophone)) -
    10 * Math.log10(openMicrophones) -
    STABILITY_MARGIN
  )
}
