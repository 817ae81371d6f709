import type { Layout, Signal } from '#core/signals/signal'
import { signalFile } from '#core/signals/signal'
import type { SampleFormat } from '#core/signals/write-wav'

/** A test signal that is to be made as a file. */
export interface SignalTask {
  signal: Signal
  sampleRate: number
  format: SampleFormat
  layout: Layout
}
export type SignalMessage = { bytes: Uint8Array<ArrayBuffer> } | { failed: string }

self.onmessage = ({ data: { signal, sampleRate, format, layout } }: MessageEvent<SignalTask>) => {
  try {
    const bytes = signalFile(signal, sampleRate, format, layout)
    postMessage({ bytes } satisfies SignalMessage, { transfer: [bytes.buffer] })
  } catch (error) {
    postMessage({ failed: error instanceof Error ? error.message : 'unknown reason' } satisfies SignalMessage)
  }
}
