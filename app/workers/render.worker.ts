import type { Hearing } from '#core/render/hearing'
import { audible } from '#core/render/hearing'

/** Hearings that are to be made into sound, to be played one after the other. */
export interface RenderTask {
  hearings: readonly Hearing[]
  sampleRate: number
  level: number
}
export type RenderMessage = { sounds: Float64Array<ArrayBuffer>[][] } | { failed: string }

self.onmessage = ({ data: { hearings, sampleRate, level } }: MessageEvent<RenderTask>) => {
  try {
    const sounds = audible(hearings, sampleRate, level)
    postMessage({ sounds } satisfies RenderMessage, { transfer: sounds.flat().map(({ buffer }) => buffer) })
  } catch (error) {
    postMessage({ failed: error instanceof Error ? error.message : 'unknown reason' } satisfies RenderMessage)
  }
}
