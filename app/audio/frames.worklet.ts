/**
 * Ships what comes in, as it comes in, to a worker: blocks of frames for every channel, handed over, not copied. It measures nothing:
 * on the audio thread every millisecond counts.
 */

/** Frames in a block. */
const BLOCK = 2048

// The scope of a worklet is not in the DOM’s types.
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void

class FramesProcessor extends AudioWorkletProcessor {
  private to: MessagePort | null = null
  private blocks: Float32Array<ArrayBuffer>[] = []
  private filled = 0

  constructor() {
    super()
    this.port.onmessage = ({ data }: MessageEvent<{ to: MessagePort }>) => {
      this.to = data.to
    }
  }

  process([input = []]: Float32Array[][]): boolean {
    const frames = input[0]?.length ?? 0
    if (!this.to || frames === 0) return true
    if (this.blocks.length !== input.length) {
      this.blocks = input.map(() => new Float32Array(BLOCK))
      this.filled = 0
    }
    for (let from = 0; from < frames;) {
      const take = Math.min(frames - from, BLOCK - this.filled)
      input.forEach((channel, c) => this.blocks[c]?.set(channel.subarray(from, from + take), this.filled))
      this.filled += take
      from += take
      if (this.filled === BLOCK) this.ship(this.to)
    }
    return true
  }

  private ship(to: MessagePort): void {
    const { blocks } = this
    to.postMessage(
      { frames: blocks },
      blocks.map(({ buffer }) => buffer),
    )
    this.blocks = blocks.map(() => new Float32Array(BLOCK))
    this.filled = 0
  }
}

registerProcessor('frames', FramesProcessor)
