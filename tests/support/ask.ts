/** How a connection that was kept for later ends when the server closes it just as it is used again. */
const CLOSED = new Set(['UND_ERR_SOCKET', 'EPIPE', 'ECONNRESET'])

/** Asks over HTTP; on a connection that was closed meanwhile, which is no answer, once more. */
export const ask = (address: string, init?: RequestInit): Promise<Response> =>
  fetch(address, init).catch((error: unknown) => {
    const cause = error instanceof Error ? (error.cause as { code?: string } | undefined) : undefined
    if (!CLOSED.has(cause?.code ?? '')) throw error
    return fetch(address, init)
  })
