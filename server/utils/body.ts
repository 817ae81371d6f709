import type { IncomingMessage } from 'node:http'
import { createGunzip } from 'node:zlib'
import type { H3Event } from 'h3'
import { Refusal } from './refusal'

/** Largest body that is read as text, in bytes, unpacked. */
export const LARGEST_BODY = 2 * 1024 * 1024

/** A body that has not come by then is not waited for, ms. */
const BODY_LIMIT = 30_000

/** The longest that nothing may come of a recording, ms. */
const PAUSE_LIMIT = 9000

/** The caller went away before its request was whole: there is nobody to answer. */
export class Gone extends Error {
  override readonly name = 'Gone'
}

/** The body of a request as text. */
export async function readText(event: H3Event): Promise<string> {
  const chunks: Uint8Array[] = []
  let size = 0
  const deadline = Date.now() + BODY_LIMIT
  for await (const chunk of bodyOf(event, () => deadline - Date.now())) {
    size += chunk.length
    if (size > LARGEST_BODY) throw tooLarge()
    chunks.push(chunk)
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(chunks))
  } catch (error) {
    if (!(error instanceof TypeError)) throw error
    throw new Refusal(400, 'Not UTF-8', 'The body holds bytes that are no UTF-8 text. Send JSON in UTF-8.', {
      errors: [{ path: '', code: 'not-utf8', message: 'The body is not UTF-8.' }],
    })
  }
}

const tooLarge = () =>
  new Refusal(413, 'Too large', `The body is larger than ${LARGEST_BODY} bytes. Send one session at a time.`)

/** The pieces of a recording as they come. */
export const readPieces = (event: H3Event): AsyncIterable<Uint8Array> => bodyOf(event, () => PAUSE_LIMIT)

/**
 * The bytes of a body, unpacked where they are packed. Ends with `Gone` where the caller goes away, and with a refusal where
 * nothing more comes in time or the packing is not known.
 * @param patience how long the next piece may take, ms
 */
async function* bodyOf(event: H3Event, patience: () => number): AsyncGenerator<Uint8Array> {
  const request = event.node.req
  const pieces = unpacked(request)[Symbol.asyncIterator]()
  try {
    for (;;) {
      const next = await within(patience(), pieces.next())
      if (next.done) return
      yield next.value
    }
  } catch (error) {
    if (request.destroyed && !request.complete) throw new Gone('the caller went away')
    if (isPacking(error))
      throw new Refusal(
        400,
        'Not gzip',
        'The body says that it is gzip and is not. Send it uncompressed, or compress it again.',
      )
    throw error
  }
}

function unpacked(request: IncomingMessage): AsyncIterable<Uint8Array> {
  const encoding = (request.headers['content-encoding'] ?? 'identity').trim().toLowerCase()
  if (encoding === 'identity') return request
  if (encoding !== 'gzip' && encoding !== 'x-gzip')
    throw new Refusal(
      415,
      'Packing not known',
      `A body packed as "${encoding.slice(0, 40)}" is not read. Send it as gzip, or as it is.`,
    )
  const gunzip = createGunzip()
  request.on('error', (error) => gunzip.destroy(error))
  return request.pipe(gunzip)
}

const isPacking = (error: unknown) =>
  error instanceof Error && 'code' in error && /^Z_/.test(String((error as NodeJS.ErrnoException).code))

async function within<T>(milliseconds: number, answer: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<never>((_, reject) => {
    const slow = () => reject(new Refusal(408, 'Too slow', 'The body did not come in time. Send it again.'))
    timer = setTimeout(slow, Math.max(0, milliseconds))
  })
  // What the body says after it was given up is nobody's business any more.
  answer.catch(() => undefined)
  try {
    return await Promise.race([answer, late])
  } finally {
    clearTimeout(timer)
  }
}
