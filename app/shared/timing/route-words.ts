import type { RoutePartName } from '#core/latency/routes'

/** The parts of a route as they are called. */
export const routePartWords: Record<RoutePartName, string> = {
  'air': 'air',
  'link': 'link',
  'converter-in': 'A/D',
  'safety-in': 'driver margin in',
  'buffer-in': 'buffer in',
  'plug-ins': 'plug-ins',
  'buffer-out': 'buffer out',
  'safety-out': 'driver margin out',
  'converter-out': 'D/A',
  'fixed': 'fixed',
  'shared-engine': 'shared engine',
  'measured-difference': 'measured besides',
  'air-out': 'air to the ear',
}
