import { joined } from '../numeric/joined'
import type { Measured, Meter } from './meter'
import type { WavFault } from './wav/format'
import { isFault } from './wav/format'
import { WavStream } from './wav/wav-stream'

/** Which channels are kept, counted from 1, and which part of the file; the whole of it where nothing is said. */
export interface Keeping {
  channels: readonly number[]
  fromSeconds?: number
  seconds?: number
  /** Frames that are kept at most, where a measurement takes many times their memory. */
  mostFrames?: number
  /** A file with fewer channels is measured by those that it has. */
  asManyAsThere?: boolean
}

/** Samples that are kept at most, of all channels together: 64 MB. */
const MOST_SAMPLES = 2 ** 23

/**
 * Keeps some channels of a stretch of a WAV file as it comes, in bounded memory, and measures them at the end. What is beyond
 * the bound is left out, and told.
 */
export class ChannelsMeter<T extends object> implements Meter<Measured<T>> {
  private readonly stream: WavStream
  private channelCount = 0
  private sampleRate = 0
  private readonly parts: Float64Array[][]
  private first = 0
  private beyond = Infinity
  private most = 0
  private at = 0
  private cut = false

  constructor(
    private readonly keeping: Keeping,
    private readonly measure: (channels: Float64Array[], sampleRate: number) => T | WavFault,
  ) {
    this.parts = keeping.channels.map(() => [])
    this.stream = new WavStream({
      begin: ({ channels, sampleRate }) => {
        this.channelCount = channels
        this.sampleRate = sampleRate
        this.first = Math.round((keeping.fromSeconds ?? 0) * sampleRate)
        this.beyond = keeping.seconds === undefined ? Infinity : this.first + Math.round(keeping.seconds * sampleRate)
        this.most = Math.min(keeping.mostFrames ?? Infinity, Math.floor(MOST_SAMPLES / keeping.channels.length))
      },
      frames: (blocks, count) => this.keep(blocks, count),
    })
  }

  push(bytes: Uint8Array): void {
    this.stream.push(bytes)
  }

  end(): Measured<T> {
    const { format, fault, remarks } = this.stream.end()
    if (fault || !format)
      return {
        ok: false,
        fault: fault ?? { code: 'no-format', message: 'The file has no format chunk. Export it again.' },
      }
    const { channels, asManyAsThere } = this.keeping
    const missing = asManyAsThere ? undefined : channels.find((channel) => channel > this.channelCount)
    if (missing !== undefined)
      return {
        ok: false,
        fault: {
          code: 'no-such-channel',
          message: `The file has ${this.channelCount} ${this.channelCount === 1 ? 'channel' : 'channels'}; channel ${missing} was to be measured. Choose channels that are there.`,
        },
      }
    const there = this.parts.filter((_, i) => (channels[i] as number) <= this.channelCount)
    const found = this.measure(there.map(joined), this.sampleRate)
    if (isFault(found)) return { ok: false, fault: found }
    return {
      ok: true,
      found,
      sampleRate: this.sampleRate,
      remarks: this.cut
        ? [
            ...remarks,
            `Only the first ${Math.floor(this.most / this.sampleRate)} s were looked at; the rest was left out.`,
          ]
        : remarks,
    }
  }

  private keep(blocks: readonly Float64Array[], count: number): void {
    const from = Math.max(0, this.first - this.at)
    const wanted = Math.min(count, this.beyond - this.at)
    const to = Math.min(wanted, this.first + this.most - this.at)
    this.cut ||= to < wanted
    this.at += count
    if (to <= from) return
    this.keeping.channels.forEach((channel, i) => {
      const block = blocks[channel - 1]
      if (block) this.parts[i]?.push(block.slice(from, to))
    })
  }
}
