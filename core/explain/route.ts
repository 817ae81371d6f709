import { routeInputs } from '../latency/route-inputs'
import type { RouteName, RoutePartName } from '../latency/routes'
import { routes } from '../latency/routes'
import type { FormulaId } from '../formula'
import type { Context } from './context'
import type { Part } from './explanation'
import type { Made } from './level'

/** Parts of a route as they are called. */
export const ROUTE_PARTS: Record<RoutePartName, string> = {
  'air': 'Air to the capsule',
  'link': 'Link',
  'converter-in': 'A/D converter',
  'safety-in': 'Driver margin in',
  'buffer-in': 'Buffer in',
  'plug-ins': 'Plug-ins',
  'buffer-out': 'Buffer out',
  'safety-out': 'Driver margin out',
  'converter-out': 'D/A converter',
  'fixed': 'Fixed',
  'shared-engine': 'Shared engine',
  'measured-difference': 'Measured besides',
  'air-out': 'Air to the ear',
}

const INPUTS: Partial<Record<RoutePartName, string>> = {
  'converter-in': 'converterIn',
  'safety-in': 'safetyIn',
  'safety-out': 'safetyOut',
  'converter-out': 'converterOut',
  'fixed': 'fixed',
}

/** Where the time of a route goes. */
export function routeParts(
  context: Context,
  name: RouteName,
): { made: Made; stage: string; milliseconds: number } | null {
  const timing = routeInputs(context.session, context.strip, context.stages)
  const found = timing && routes(timing.inputs).find(({ route }) => route === name)
  if (!timing || !found) return null
  const { unit } = timing.inputs
  const formula: FormulaId = name === 'direct' ? 'latency-direct' : 'latency-software'
  const parts = found.parts
    .filter(({ milliseconds }) => milliseconds !== 0)
    .map(({ name: part, milliseconds }): Part => {
      const path =
        part === 'measured-difference' ? 'system.roundTrips' : `gear.${unit.id}.latency.${INPUTS[part] ?? ''}`
      const { u: _, ...known } = context.input(path, ROUTE_PARTS[part], milliseconds, 'ms', milliseconds)
      return { ...known, u: null }
    })
  return { made: { formula, parts, remarks: [] }, stage: timing.stage, milliseconds: found.milliseconds }
}
