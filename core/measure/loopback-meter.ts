import { joined } from '../numeric/joined'
import type { Loopback } from './loopback'
import { measureLoopback } from './loopback'
import type { WavFault, WavFormat } from './wav/format'
import { WavStream } from './wav/wav-stream'

export type LoopbackResult =
  | { ok: true, loopback: Loopback, format: WavFormat, remarks: string[] }
  | { ok: false, fault: WavFault }

/** Frames of a loopback recording that are looked at: some 40 s at 48 kHz. */
const MOST_FRAMES = 2 ** 21

/** Measures the lag between two channels of a WAV file as it comes; what is beyond the first half minute or so is left out. */
export class LoopbackMeter {
  private readonly stream: WavStream
  private channelCount = 0
  private readonly parts: Float64Array[][] = [[], []]
  private frames = 0
  private cut = false

  /** Channels are counted from 1. */
  constructor(private readonly reference: number, private readonly returned: number) {
    this.stream = new WavStream({
      begin: ({ channels }) => { this.channelCount = channels },
      frames: (blocks, count) => this.keep(blocks, count),
    })
  }

  push(bytes: Uint8Array): void {
    this.stream.push(bytes)
  }

  end(): LoopbackResult {
    const { format, fault, remarks } = this.stream.end()
    if (fault || !format) return { ok: false, fault: fault ?? { code: 'no-format', message: 'The file has no format chunk. Export it again.' } }
    for (const [what, channel] of [['reference', this.reference], ['return', this.returned]] as const) {
      if (channel > this.channelCount) return { ok: false, fault: { code: 'no-such-channel', message: `The file has ${this.channelCount} ${this.channelCount === 1 ? 'channel' : 'channels'}; the ${what} is to be channel ${channel}. Name channels that are there.` } }
    }
    const [sent, got] = this.parts.map(joined)
    const loopback = measureLoopback(sent as Float64Array, got as Float64Array, format.sampleRate)
    if (!loopback) return { ok: false, fault: { code: 'silent', message: 'The reference or the return is silent: there is no lag to be found. Check the lead and the channel numbers.' } }
    return { ok: true, loopback, format, remarks: this.cut ? [...remarks, `Only the first ${MOST_FRAMES} frames were looked at.`] : remarks }
  }

  private keep(blocks: readonly Float64Array[], count: number): void {
    const take = Math.min(count, MOST_FRAMES - this.frames)
    this.cut ||= take < count
    if (take <= 0) return
    for (const [i, channel] of [this.reference, this.returned].entries()) {
      const block = blocks[channel - 1]
      if (block) this.parts[i]?.push(block.slice(0, take))
    }
    this.frames += take
  }
}
