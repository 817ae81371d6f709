import type { Broadcast } from './broadcast'
import { readBroadcast } from './broadcast'
import type { Decode } from './decode'
import { decoderOf } from './decode'
import type { WavFault, WavFormat } from './format'
import { isFault, readFormat } from './format'

/** Takes the frames of a file, a block at a time; the arrays are used again and hold `count` frames. */
export interface FrameSink {
  begin: (format: WavFormat) => void
  /** Channels that are not wanted are passed over, and their arrays stay empty. */
  wants?: (channel: number) => boolean
  frames: (channels: readonly Float64Array[], count: number) => void
}

export interface WavEnd {
  format: WavFormat | null
  frames: number
  /** Why nothing could be read; `null` where something was. */
  fault: WavFault | null
  /** What was skipped or fixed on the way. */
  remarks: string[]
  /** Floating-point samples that were no numbers. */
  odd: number
}

/** That some samples were no numbers; nothing where all were. */
export const oddRemarks = (odd: number): string[] =>
  odd > 0 ? [`${odd} floating-point samples are no numbers or absurdly large; they were taken as silence.`] : []

/** Frames handed over at a time. */
const BLOCK = 4096

/** Longest chunk before the samples that is kept in memory; longer ones are skipped over. */
const LONGEST_KEPT = 1024 * 1024

/** Sizes that stand for "see elsewhere" or "not known when writing began". */
const UNKNOWN_SIZE = 0xffffffff

/**
 * Reads a WAV file as it comes, in pieces of any size and in bounded memory: RIFF, RF64 and BW64, plain and extensible,
 * integer and floating point. A file cut short gives what is there, and says so; a header's wrong size is not believed over
 * the file's own end.
 */
export class WavStream {
  private waiting = new Uint8Array(0)
  private state: 'head' | 'chunks' | 'samples' | 'skip' | 'done' = 'head'
  private format: WavFormat | null = null
  private fault: WavFault | null = null
  private readonly remarks: string[] = []
  private left = 0
  private longData: number | null = null
  private broadcast: Broadcast | null = null
  private decode: Decode | null = null
  private frameCount = 0
  private odd = 0
  private oddChunk = false
  private block: Float64Array[] = []
  private filled = 0

  constructor(private readonly sink: FrameSink) {}

  push(bytes: Uint8Array): void {
    if (this.state === 'done') return
    // Samples are read in place; only what does not fill a frame or a header waits.
    let piece = bytes
    if (this.waiting.length > 0) {
      piece = new Uint8Array(this.waiting.length + bytes.length)
      piece.set(this.waiting)
      piece.set(bytes, this.waiting.length)
    }
    let at = 0
    for (;;) {
      const used = this.step(piece.subarray(at))
      if (used === 0) break
      at += used
      if ((this.state as string) === 'done') break
    }
    this.waiting = piece.slice(at)
  }

  end(): WavEnd {
    if (this.state === 'samples' && this.left > 0 && this.left !== Infinity)
      this.remarks.push(
        `The file ends ${Math.ceil(this.left / (this.format?.frameBytes ?? 1))} frames before its header says; what is there was read.`,
      )
    if (this.state === 'samples' && this.waiting.length > 0)
      this.remarks.push('The last frame is cut through and was left out.')
    this.flush()
    if (!this.fault && !this.format)
      this.fault = {
        code: this.state === 'head' ? 'not-wav' : 'no-format',
        message:
          this.state === 'head'
            ? 'The file is too short to be a WAV file. Choose a recording.'
            : 'The file has no format chunk before its end. Export it again.',
      }
    else if (!this.fault && this.frameCount === 0)
      this.fault = { code: 'no-samples', message: 'The file holds no samples. Record something and try again.' }
    return {
      format: this.format && { ...this.format, broadcast: this.broadcast },
      frames: this.frameCount,
      fault: this.fault,
      remarks: [...this.remarks, ...oddRemarks(this.odd)],
      odd: this.odd,
    }
  }

  private refuse(fault: WavFault): number {
    this.fault = fault
    this.state = 'done'
    return 0
  }

  /** Works on what is there; tells how many bytes it has used, 0 where it needs more. */
  private step(piece: Uint8Array): number {
    switch (this.state) {
      case 'head':
        return this.head(piece)
      case 'chunks':
        return this.chunk(piece)
      case 'skip':
        return this.skip(piece)
      case 'samples':
        return this.samples(piece)
      case 'done':
        return 0
    }
  }

  private head(piece: Uint8Array): number {
    if (piece.length < 12) return 0
    const [riff, wave] = [text(piece, 0), text(piece, 8)]
    if (!['RIFF', 'RF64', 'BW64'].includes(riff) || wave !== 'WAVE') {
      return this.refuse({
        code: 'not-wav',
        message:
          riff === 'RIFX'
            ? 'The file is big-endian (RIFX), which is not read. Export it as WAV.'
            : 'The file does not start like a WAV file. Choose a recording in WAV format; other formats have to be exported as WAV first.',
      })
    }
    this.state = 'chunks'
    return 12
  }

  private chunk(piece: Uint8Array): number {
    // A chunk of odd length is followed by a byte of nothing – which some programs forget.
    if (this.oddChunk && piece.length > 0) {
      this.oddChunk = false
      if (piece[0] === 0) return 1
    }
    if (piece.length < 8) return 0
    const name = text(piece, 0)
    const size = view(piece).getUint32(4, true)
    if (name === 'data') {
      if (!this.format)
        return this.refuse({
          code: 'no-format',
          message: 'The samples come before any format chunk: they cannot be understood. Export the file again.',
        })
      const unknown = size === UNKNOWN_SIZE || (size === 0 && this.longData === null)
      this.left = this.longData ?? (unknown ? Infinity : size)
      if (unknown && this.longData === null)
        this.remarks.push('The header does not say how long the samples are; the file was read to its end.')
      this.odd = 0
      this.state = 'samples'
      return 8
    }
    if (size > LONGEST_KEPT) {
      this.left = size
      this.oddChunk = size % 2 === 1
      this.state = 'skip'
      return 8
    }
    if (piece.length < 8 + size) return 0
    const body = new DataView(piece.buffer, piece.byteOffset + 8, size)
    if (name === 'fmt ' && !this.format) {
      const format = readFormat(body)
      if (isFault(format)) return this.refuse(format)
      this.format = format
      this.decode = decoderOf(format)
      this.block = Array.from({ length: format.channels }, () => new Float64Array(BLOCK))
      this.sink.begin(format)
    } else if (name === 'ds64' && size >= 16) {
      this.longData = Number(body.getBigUint64(8, true))
    } else if (name === 'bext') {
      this.broadcast = readBroadcast(piece.subarray(8, 8 + size))
      if (!this.broadcast) this.remarks.push('The broadcast extension is cut short and was left out.')
    }
    this.oddChunk = size % 2 === 1
    return 8 + size
  }

  private skip(piece: Uint8Array): number {
    const used = Math.min(this.left, piece.length)
    this.left -= used
    if (this.left === 0) this.state = 'chunks'
    return used
  }

  private samples(piece: Uint8Array): number {
    const { format, decode } = this
    if (!format || !decode) return 0
    const whole = Math.floor(Math.min(piece.length, this.left) / format.frameBytes)
    if (whole === 0) {
      if (this.left >= format.frameBytes || this.left === Infinity) return 0
      // What is left of the chunk is less than a frame.
      const rest = this.left
      this.left = 0
      this.state = 'done'
      return Math.min(rest, piece.length)
    }
    const { channels, frameBytes } = format
    const width = frameBytes / channels
    for (let frame = 0; frame < whole;) {
      const take = Math.min(whole - frame, BLOCK - this.filled)
      for (let channel = 0; channel < channels; channel++) {
        if (this.sink.wants && !this.sink.wants(channel)) continue
        this.odd += decode(
          piece,
          frame * frameBytes + channel * width,
          frameBytes,
          take,
          this.block[channel] as Float64Array,
          this.filled,
        )
      }
      frame += take
      this.filled += take
      if (this.filled === BLOCK) this.flush()
    }
    this.frameCount += whole
    const used = whole * frameBytes
    this.left -= used
    if (this.left === 0) this.state = 'done'
    return used
  }

  private flush(): void {
    if (this.filled > 0) this.sink.frames(this.block, this.filled)
    this.filled = 0
  }
}

const text = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4))
const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
