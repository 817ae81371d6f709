/** What an input’s port brings: blocks of frames from a worklet, or the track itself, where that has more channels than a worklet sees. */
export type Incoming = { frames: Float32Array<ArrayBuffer>[] } | { track: ReadableStream<AudioData> }

/** Takes an input’s frames until its port is closed. */
export function takeFrames(port: MessagePort, take: (blocks: Float32Array<ArrayBuffer>[]) => void): void {
  port.onmessage = ({ data }: MessageEvent<Incoming>) => {
    if ('frames' in data) take(data.frames)
    else void read(data.track, take)
  }
}

/** Reads a track to its end: it ends when the page stops it. */
async function read(track: ReadableStream<AudioData>, take: (blocks: Float32Array<ArrayBuffer>[]) => void) {
  const reader = track.getReader()
  for (let next = await reader.read(); !next.done; next = await reader.read()) {
    const data = next.value
    const blocks = Array.from({ length: data.numberOfChannels }, (_, planeIndex) => {
      const block = new Float32Array(data.numberOfFrames)
      data.copyTo(block, { planeIndex, format: 'f32-planar' })
      return block
    })
    data.close()
    take(blocks)
  }
}
