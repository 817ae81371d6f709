import { seeded } from '../numeric/random'

export type SampleFormat = 16 | 24 | 'float'

/** What a classic RIFF file can hold; longer signals are not made here. */
const LONGEST_BYTES = 2 ** 32 - 1024

/**
 * A WAV file of channels of equal length, samples −1 … 1. Integer samples get TPDF dither of ±1 step, so that the rounding
 * becomes noise without a memory of the signal; what is over full scale is held there.
 */
export function writeWav(
  channels: readonly Float64Array[],
  sampleRate: number,
  format: SampleFormat,
  { dither = true, seed = 1 } = {},
): Uint8Array<ArrayBuffer> {
  const bytes = format === 'float' ? 4 : format / 8
  const frames = channels[0]?.length ?? 0
  const size = frames * channels.length * bytes
  if (size > LONGEST_BYTES) throw new Error('The signal is longer than a WAV file holds.')
  const buffer = new ArrayBuffer(44 + size)
  const data = new DataView(buffer)
  const text = (at: number, word: string) =>
    [...word].forEach((letter, i) => data.setUint8(at + i, letter.charCodeAt(0)))
  text(0, 'RIFF')
  data.setUint32(4, 36 + size, true)
  text(8, 'WAVEfmt ')
  data.setUint32(16, 16, true)
  data.setUint16(20, format === 'float' ? 3 : 1, true)
  data.setUint16(22, channels.length, true)
  data.setUint32(24, sampleRate, true)
  data.setUint32(28, sampleRate * channels.length * bytes, true)
  data.setUint16(32, channels.length * bytes, true)
  data.setUint16(34, 8 * bytes, true)
  text(36, 'data')
  data.setUint32(40, size, true)
  const random = seeded(seed)
  const full = format === 'float' ? 1 : 2 ** (format - 1)
  let at = 44
  for (let i = 0; i < frames; i++) {
    for (const channel of channels) {
      const x = channel[i] as number
      if (format === 'float') {
        data.setFloat32(at, x, true)
      } else {
        const noise = dither ? random() - random() : 0
        const value = Math.max(-full, Math.min(full - 1, Math.round(x * full + noise)))
        data.setInt16(at + bytes - 2, value >> (format - 16), true)
        if (format === 24) data.setUint8(at, value & 0xff)
      }
      at += bytes
    }
  }
  return new Uint8Array(buffer)
}
