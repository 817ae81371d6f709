/**
 * Plays and records on one clock: a task comes through the port, its signals go out, and what came in from its first frame to half a
 * second after its last one goes back. It measures nothing.
 */
import type { RigMessage, RigTask } from '#core/signals/rig'
import { TAIL } from '#core/signals/rig'

// The scope of a worklet is not in the DOM’s types.
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}
declare const sampleRate: number
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void

class PlayRecordProcessor extends AudioWorkletProcessor {
  private to: MessagePort | null = null
  private task: RigTask | null = null
  private recorded: Float32Array<ArrayBuffer>[] = []
  private at = 0

  constructor() {
    super()
    this.port.onmessage = ({ data }: MessageEvent<{ to: MessagePort; inputs: number }>) => {
      this.to = data.to
      this.to.onmessage = ({ data: task }: MessageEvent<RigTask>) => {
        const frames = task.frames + Math.round(TAIL * sampleRate)
        this.recorded = Array.from({ length: data.inputs }, () => new Float32Array(frames))
        this.task = task
        this.at = 0
      }
    }
  }

  process([input = []]: Float32Array[][], [output = []]: Float32Array[][]): boolean {
    const { task } = this
    if (!task) return true
    const frames = output[0]?.length ?? 128
    output.forEach((channel, c) => {
      const signal = task.played[c]
      if (!signal) return
      for (let i = 0; i < frames; i++) channel[i] = signal[this.placeIn(signal.length, i)] ?? 0
    })
    const length = this.recorded[0]?.length ?? 0
    if (this.at < length) {
      this.recorded.forEach((into, c) => {
        const channel = input[c]
        if (channel) into.set(channel.subarray(0, Math.min(frames, length - this.at)), this.at)
      })
    }
    this.at += frames
    if (this.at >= length && this.at - frames < length) this.ship()
    return true
  }

  private placeIn(length: number, i: number): number {
    const place = this.at + i
    return this.task?.goesOn ? place % length : place
  }

  private ship(): void {
    const { recorded } = this
    this.to?.postMessage(
      { recorded } satisfies RigMessage,
      recorded.map(({ buffer }) => buffer),
    )
    this.recorded = []
    if (!this.task?.goesOn) this.task = null
  }
}

registerProcessor('play-record', PlayRecordProcessor)
