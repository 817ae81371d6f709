/** A classic RIFF WAV file ends here, 4 GiB. */
export const LARGEST_RIFF = 2 ** 32

/**
 * Bytes of a recording: fs · bits/8 · channels · seconds.
 * Examples: 48 kHz, 24 bit, 2 channels, 1 h: 1.0368 GB; 96 kHz, 24 bit, 8 channels, 1 h: 8.294 GB.
 */
export const recordingBytes = (sampleRate: number, bits: number, channels: number, seconds: number): number =>
  sampleRate * (bits / 8) * channels * seconds
