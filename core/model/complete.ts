import type { Gear } from './gear'
import { traitsOf } from './gear'
import { inForce } from './measurement'
import { settings as schema } from './settings'
import type { Settings } from './settings'
import type { Stage, Strip } from './strip'

/** From a loudspeaker to the listener where nobody said, m (common practice, no source). */
const LISTENER = 4

/** What a stage's settings are where the file leaves them out: gains fully down, faders at their zero mark, switches out. */
export function initialSettings(gear: Gear, port?: string): Settings {
  if (gear.kind === 'sound-source') return { distance: inForce(gear).distance }
  const listener = gear.kind === 'loudspeaker' && { distance: LISTENER }
  const traits = traitsOf(gear)
  const own = traits.settings(gear, port)
  const gain = traits.gainRange(gear, port, 'gain')
  const rests = gain && (traits.gainRests === 'zero' ? Math.min(gain.gainMax, Math.max(gain.gainMin, 0)) : gain.gainMin)
  return schema.parse({
    ...listener,
    ...(rests !== null && { gain: rests }),
    ...(own.includes('fader') && { fader: 0 }),
    ...(own.includes('phantom') && { phantom: false }),
    ...(own.includes('pad') && { pad: false }),
    ...(own.includes('lowCut') && traits.hasSwitch(gear, port, 'lowCut') && { lowCut: false }),
    ...(own.includes('tap') && { tap: 'post' }),
  })
}

/** Only for a session without faults. */
const completeStage = (stage: Stage, gear: Gear): Stage => ({
  ...stage,
  settings: { ...initialSettings(gear, stage.port), ...stage.settings },
})

export const completeStrip = (strip: Strip, gear: ReadonlyMap<string, Gear>): Strip => ({
  ...strip,
  stages: strip.stages.map((stage) => completeStage(stage, gear.get(stage.gear) as Gear)),
})
