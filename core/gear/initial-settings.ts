import type { Settings } from '../model'
import { settings as schema } from '../model'
import type { Gear } from './kinds'
import { traitsOf } from './kinds'

/** What a stage's settings are where the file leaves them out: gains fully down, faders at their zero mark, switches out. */
export function initialSettings(gear: Gear, port?: string): Settings {
  const traits = traitsOf(gear)
  const own = traits.settings(gear, port)
  const gain = traits.gainRange(gear, port, 'gain')
  const rests = gain && (traits.gainRests === 'zero' ? Math.min(gain.gainMax, Math.max(gain.gainMin, 0)) : gain.gainMin)
  return schema.parse({
    ...traits.usualPlace(gear),
    ...(rests !== null && { gain: rests }),
    ...(own.includes('fader') && { fader: 0 }),
    ...(own.includes('phantom') && { phantom: false }),
    ...(own.includes('pad') && { pad: false }),
    ...(own.includes('lowCut') && traits.hasSwitch(gear, port, 'lowCut') && { lowCut: false }),
    ...(own.includes('tap') && { tap: 'post' }),
  })
}
