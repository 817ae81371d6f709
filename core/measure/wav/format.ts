import type { Broadcast } from './broadcast'

/** What the header of a WAV file says of its samples. */
export interface WavFormat {
  /** Integer or floating point. */
  encoding: 'integer' | 'float'
  bits: number
  channels: number
  sampleRate: number
  /** Bytes of one frame. */
  frameBytes: number
  /** Which loudspeaker each channel is for, as bits; `null` where the file does not say. */
  channelMask: number | null
  /** The broadcast extension, where there is one. */
  broadcast: Broadcast | null
}

/** Why a file, or what follows in it, was not read; what to do is in the message. */
export interface WavFault {
  code: string
  message: string
}

const PCM = 1
const FLOAT = 3
const EXTENSIBLE = 0xfffe
const NAMES: Record<number, string> = {
  2: 'ADPCM',
  6: 'A-law',
  7: 'µ-law',
  0x11: 'ADPCM',
  0x50: 'MPEG',
  0x55: 'MPEG layer 3',
  0xff: 'AAC',
}

/** Channels that are read at most. */
export const MOST_CHANNELS = 32

/** Samples a second of all channels together that are measured: 32 channels at 96 kHz, or 2 at 768 kHz and as many more. */
const MOST_SAMPLES_PER_SECOND = 32 * 96_000

/** Reads the body of a `fmt ` chunk. */
export function readFormat(body: DataView): WavFormat | WavFault {
  if (body.byteLength < 16)
    return { code: 'short-format', message: 'The format chunk is cut short: the file cannot be read. Export it again.' }
  let tag = body.getUint16(0, true)
  const channels = body.getUint16(2, true)
  const sampleRate = body.getUint32(4, true)
  const frameBytes = body.getUint16(12, true)
  const bits = body.getUint16(14, true)
  const extensible = tag === EXTENSIBLE && body.byteLength >= 40
  const channelMask = extensible ? body.getUint32(20, true) || null : null
  if (extensible) tag = body.getUint16(24, true)
  if (tag !== PCM && tag !== FLOAT)
    return {
      code: 'compressed',
      message: `The samples are stored as ${NAMES[tag] ?? `format ${tag}`}, which is compressed or unknown. Export the file as linear PCM or floating point.`,
    }
  if (channels < 1 || channels > MOST_CHANNELS)
    return {
      code: 'channels',
      message: `The header says ${channels} channels; 1 to ${MOST_CHANNELS} are read. Export fewer channels, or correct the header.`,
    }
  if (sampleRate < 1000 || sampleRate > 1_000_000)
    return {
      code: 'sample-rate',
      message: `The header says ${sampleRate} Hz, which is no sample rate. Correct the header, or export the file again.`,
    }
  // Meters are made for a second at a time: what they take is bounded before they are.
  if (channels * sampleRate > MOST_SAMPLES_PER_SECOND)
    return {
      code: 'too-much',
      message: `The header says ${channels} channels at ${sampleRate} Hz, ${channels * sampleRate} samples a second; ${MOST_SAMPLES_PER_SECOND} are measured. Export fewer channels at once.`,
    }
  const known = tag === PCM ? [8, 16, 24, 32] : [32, 64]
  if (!known.includes(bits))
    return {
      code: 'bits',
      message: `Samples of ${bits} bits are not read; ${tag === PCM ? '16, 24 and 32 bits' : '32 and 64 bits of floating point'} are. Export the file in one of these.`,
    }
  if (frameBytes !== channels * (bits / 8))
    return {
      code: 'frame-size',
      message: `The header says ${frameBytes} bytes a frame, but ${channels} channels of ${bits} bits take ${channels * (bits / 8)}. Correct the header, or export the file again.`,
    }
  return {
    encoding: tag === PCM ? 'integer' : 'float',
    bits,
    channels,
    sampleRate,
    frameBytes,
    channelMask,
    broadcast: null,
  }
}

export const isFault = (value: object): value is WavFault => 'code' in value
