import type { WavFormat } from './format'

/**
 * Writes one channel of a run of frames as numbers, −1 … 1 for full scale.
 * @param at byte of the channel's first sample
 * @returns how many samples were no numbers, or absurdly large: they count as silence.
 */
export type Decode = (
  bytes: Uint8Array,
  at: number,
  frameBytes: number,
  frames: number,
  into: Float64Array,
  from: number,
) => number

/** Nothing that is recorded is louder: 120 dB over full scale. */
const ABSURD = 1e6

const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

/** One decoder for each word length, with nothing but its own arithmetic in the loop. */
const integers: Record<number, Decode> = {
  8: (bytes, at, frameBytes, frames, into, from) => {
    for (let i = 0; i < frames; i++, at += frameBytes) into[from + i] = ((bytes[at] as number) - 128) / 128
    return 0
  },
  16: (bytes, at, frameBytes, frames, into, from) => {
    for (let i = 0; i < frames; i++, at += frameBytes)
      into[from + i] = (((bytes[at] as number) << 16) | ((bytes[at + 1] as number) << 24)) / 2_147_483_648
    return 0
  },
  24: (bytes, at, frameBytes, frames, into, from) => {
    for (let i = 0; i < frames; i++, at += frameBytes)
      into[from + i] =
        (((bytes[at] as number) << 8) | ((bytes[at + 1] as number) << 16) | ((bytes[at + 2] as number) << 24)) /
        2_147_483_648
    return 0
  },
  32: (bytes, at, frameBytes, frames, into, from) => {
    const data = view(bytes)
    for (let i = 0; i < frames; i++, at += frameBytes) into[from + i] = data.getInt32(at, true) / 2_147_483_648
    return 0
  },
}

const floats =
  (read: (data: DataView, at: number) => number): Decode =>
  (bytes, at, frameBytes, frames, into, from) => {
    const data = view(bytes)
    let odd = 0
    for (let i = 0; i < frames; i++, at += frameBytes) {
      const value = read(data, at)
      const sound = value > -ABSURD && value < ABSURD
      if (!sound) odd++
      into[from + i] = sound ? value : 0
    }
    return odd
  }
const float32 = floats((data, at) => data.getFloat32(at, true))
const float64 = floats((data, at) => data.getFloat64(at, true))

/** The decoder of a format that was read, which has one. */
export const decoderOf = ({ encoding, bits }: WavFormat): Decode =>
  encoding === 'integer' ? (integers[bits] as Decode) : bits === 32 ? float32 : float64
