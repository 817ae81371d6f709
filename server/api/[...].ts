import { endpoints } from '../contract/endpoints'
import { apiHandler } from '../utils/api-handler'
import { Refusal } from '../utils/refusal'

/** What is answered, and with which methods; `null` where a path is none of them. */
function methodsAt(path: string): string | null {
  const entry = Object.entries(endpoints).find(([each]) => matches(each, path))
  return entry ? (entry[1].method === 'get' ? 'GET, HEAD' : 'POST') : null
}
const matches = (pattern: string, path: string) =>
  pattern.endsWith('/{name}') ? dirname(path) === dirname(pattern) : path === pattern
const dirname = (path: string) => path.slice(0, path.lastIndexOf('/'))

/** Anything else under /api is answered as a problem too, not with a page of the interface. */
export default apiHandler((event) => {
  const path = event.path.split('?')[0] ?? ''
  const allow = methodsAt(path.replace(/\/+$/, ''))
  const asked = `${event.method} ${path.slice(0, 200)}`
  if (allow) throw new Refusal(405, 'Not this way', `${asked} is not answered; ${allow} is.`, { allow })
  const known = Object.entries(endpoints).map(([each, { method }]) => `${method.toUpperCase()} ${each}`)
  throw new Refusal(404, 'No such endpoint', `${asked} is not answered. There are ${known.join(', ')}.`)
})
