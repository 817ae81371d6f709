import type { H3Event } from 'h3'

/** Largest body that the API reads, in bytes. */
export const LARGEST_BODY = 2 * 1024 * 1024

/**
 * The body of a request as text, or `null` where it is larger than allowed.
 * What is over is read and dropped, so that the caller gets the answer instead of a broken connection.
 */
export async function readText(event: H3Event): Promise<string | null> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size <= LARGEST_BODY) chunks.push(chunk)
  }
  return size > LARGEST_BODY ? null : Buffer.concat(chunks).toString('utf8')
}
