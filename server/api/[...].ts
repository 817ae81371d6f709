import { apiHandler } from '../utils/api-handler'
import { Refusal } from '../utils/refusal'

/** What is answered under /api, and with which method. */
const endpoints: Record<string, string> = {
  '/api/evaluate': 'POST',
  '/api/plan': 'POST',
  '/api/uncertainty': 'POST',
  '/api/explain': 'POST',
  '/api/soundcheck': 'POST',
  '/api/diagnose': 'POST',
  '/api/timing': 'POST',
  '/api/measure/levels': 'POST',
  '/api/measure/loopback': 'POST',
  '/api/schema/session': 'GET, HEAD',
  '/api/schema/backup': 'GET, HEAD',
}

/** Anything else under /api is answered as a problem too, not with a page of the interface. */
export default apiHandler((event) => {
  const path = event.path.split('?')[0] ?? ''
  const allow = endpoints[path.replace(/\/+$/, '')]
  const asked = `${event.method} ${path.slice(0, 200)}`
  if (allow) throw new Refusal(405, 'Not this way', `${asked} is not answered; ${allow} is.`, { allow })
  const known = Object.entries(endpoints).map(([each, method]) => `${method.split(',')[0]} ${each}`)
  throw new Refusal(404, 'No such endpoint', `${asked} is not answered. There are ${known.join(', ')}.`)
})
