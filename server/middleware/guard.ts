import { isIP } from 'node:net'
import { apiHandler } from '../utils/api-handler'
import { Refusal } from '../utils/refusal'

/** Names under which this server is called: the machine itself, addresses, and what the owner names. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]']
const named = [process.env.HOST ?? '', ...(process.env.REMETRA_NAMES ?? '').split(',')]
  .map((name) => name.trim().toLowerCase())
  .filter((name) => name !== '')
const allowed = new Set([...LOOPBACK, ...named])

const hostOf = (host: string) => host.toLowerCase().replace(/:\d+$/, '')
const isAddress = (host: string) => isIP(host.replace(/^\[|\]$/g, '')) !== 0

/**
 * Who may call: a page of another site must not, neither by a name that it lets point here (DNS rebinding) nor with a request of
 * its own. An address that was typed as numbers cannot be made to point elsewhere.
 */
export default apiHandler((event) => {
  const host = hostOf(event.node.req.headers.host ?? '')
  if (!allowed.has(host) && !isAddress(host))
    throw new Refusal(
      421,
      'Not this server',
      `"${host.slice(0, 100)}" is no name of this server. Call it by its address, or start it with REMETRA_NAMES=${host.slice(0, 100)}.`,
    )
  const { origin } = event.node.req.headers
  if (origin === undefined || event.method === 'GET' || event.method === 'HEAD') return undefined
  const from = URL.canParse(origin) ? new URL(origin).host.toLowerCase() : origin
  if (from !== (event.node.req.headers.host ?? '').toLowerCase())
    throw new Refusal(403, 'Another site', `A page of "${origin.slice(0, 100)}" may not ask this server.`)
  return undefined
})
