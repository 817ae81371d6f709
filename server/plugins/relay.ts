import type { defineWebSocketHandler } from 'h3'
import { defineNitroPlugin } from '#imports'
import { MOST_BYTES } from '#core/relay/limits'
import type { Connection } from '../relay/rooms'
import { Rooms } from '../relay/rooms'
import { relaySetting } from '../relay/setting'
import { foreignName, isOwnOrigin } from '../utils/caller'

/** A connection as the server hands it out. */
type Peer = Parameters<NonNullable<Parameters<typeof defineWebSocketHandler>[0]['open']>>[0]

/** How often silent members are looked for, ms. */
const SWEEP = 5000

const refuse = (status: number, why: string): never => {
  throw new Response(`${why}\n`, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } })
}

const pathOf = (url: string) => (URL.canParse(url) ? new URL(url).pathname : '')

/**
 * The relay of the second screen. An upgrade passes no middleware, so that who calls, from which page and for which path is checked
 * here, for every upgrade of this server.
 */
export default defineNitroPlugin(({ h3App }) => {
  const { on, relay } = relaySetting()
  const rooms = new Rooms()
  const connections = new WeakMap<Peer, Connection>()

  h3App.options.websocket = {
    // Of the package that serves them, which passes them on to its own server.
    ...({ serverOptions: { maxPayload: MOST_BYTES, perMessageDeflate: false } } as object),
    hooks: {
      upgrade: ({ url, headers }) => {
        const [host, origin] = [headers.get('host') ?? undefined, headers.get('origin')]
        if (foreignName(host) !== null) refuse(421, 'This is no name of this server.')
        if (origin === null || !isOwnOrigin(origin, host))
          refuse(403, 'A page of another site may not ask this server.')
        if (pathOf(url) !== relay) refuse(404, 'Nothing is relayed here.')
        if (!on) refuse(403, 'This server relays nothing: it serves one machine alone, or was told not to.')
      },
      open: (peer) => {
        const socket = peer.websocket as { bufferedAmount?: number }
        const connection: Connection = {
          send: (bytes) => void peer.send(bytes),
          close: (code) => peer.close(code),
          waiting: () => socket.bufferedAmount ?? 0,
        }
        connections.set(peer, connection)
        rooms.opened(connection)
      },
      message: (peer, message) => {
        const connection = connections.get(peer)
        if (connection) rooms.message(connection, message.uint8Array())
      },
      close: (peer) => {
        const connection = connections.get(peer)
        if (connection) rooms.closed(connection)
      },
      error: (peer) => {
        const connection = connections.get(peer)
        if (connection) rooms.closed(connection)
      },
    },
  }
  if (!on) return
  setInterval(() => rooms.sweep(), SWEEP).unref()
  // Nitro's own hook comes after it has waited for the connections to close.
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => rooms.closeAll())
})
