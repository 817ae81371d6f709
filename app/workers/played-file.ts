import { WavStream } from '#core/measure/wav/wav-stream'

/** What becomes of a file that is played: what it is, and how it ended. */
export interface FileEvents {
  begin: (sampleRate: number, channels: number) => void
  frames: (blocks: Float32Array[]) => void
  /** `problem` says why nothing could be read, or what was fixed on the way; `null` for a good end. */
  end: (problem: string | null) => void
}

/** Bytes read at a time. */
const PIECE = 1 << 16
/** How far the file may run ahead of the clock, s. */
const AHEAD = 0.1

/** Plays a WAV file of any number of channels to whoever takes its frames, in real time. @returns how to stop it */
export function playFile(file: Blob, events: FileEvents): () => void {
  let [isStopped, played, sampleRate, began] = [false, 0, 0, 0]
  const stream = new WavStream({
    begin: (format) => {
      sampleRate = format.sampleRate
      began = performance.now()
      events.begin(sampleRate, format.channels)
    },
    frames: (channels, count) => {
      if (isStopped) return
      played += count
      events.frames(channels.map((samples) => Float32Array.from(samples.subarray(0, count))))
    },
  })
  const run = async () => {
    for (let at = 0; at < file.size && !isStopped; at += PIECE) {
      stream.push(new Uint8Array(await file.slice(at, at + PIECE).arrayBuffer()))
      const early = sampleRate === 0 ? 0 : played / sampleRate - AHEAD - (performance.now() - began) / 1000
      if (early > 0) await new Promise((resolve) => setTimeout(resolve, 1000 * early))
    }
    if (isStopped) return
    const { fault, remarks } = stream.end()
    events.end(fault?.message ?? (remarks.length > 0 ? remarks.join(' ') : null))
  }
  run().catch((error: unknown) => {
    if (!isStopped)
      events.end(
        `The file could not be read (${error instanceof Error ? error.message : 'unknown reason'}). Try a copy of it.`,
      )
  })
  return () => {
    isStopped = true
  }
}
