import { apiHandler } from '../utils/api-handler'
import { foreignName, isOwnOrigin } from '../utils/caller'
import { Refusal } from '../utils/refusal'

/**
 * Who may call: a page of another site must not, neither by a name that it lets point here (DNS rebinding) nor with a request of
 * its own.
 */
export default apiHandler((event) => {
  const { host, origin } = event.node.req.headers
  const foreign = foreignName(host)
  if (foreign !== null)
    throw new Refusal(
      421,
      'Not this server',
      `"${foreign.slice(0, 100)}" is no name of this server. Call it by its address, or start it with REMETRA_NAMES=${foreign.slice(0, 100)}.`,
    )
  if (origin === undefined || event.method === 'GET' || event.method === 'HEAD') return undefined
  if (!isOwnOrigin(origin, host))
    throw new Refusal(403, 'Another site', `A page of "${origin.slice(0, 100)}" may not ask this server.`)
  return undefined
})
