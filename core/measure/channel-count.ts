import { WavStream } from './wav/wav-stream'

/** Bytes from its beginning in which a WAV file has said how many channels it has, or is not asked further. */
export const HEAD_BYTES = 2 ** 18

/** How many channels a WAV file has, from its first bytes; `null` where they do not say. */
export function channelCount(head: Uint8Array): number | null {
  let count: number | null = null
  const stream = new WavStream({
    begin: ({ channels }) => {
      count = channels
    },
    wants: () => false,
    frames: () => undefined,
  })
  stream.push(head)
  return count
}
