import { inForce } from './field'
import type { Gear } from './gear'
import type { Stage, Strip } from './session'
import type { Settings } from './settings'
import { gainRange, hasSwitch, settingsOf } from './settings'

/** What a stage's settings are where the file leaves them out: gains fully down, faders at their zero mark, switches out. */
export function initialSettings(gear: Gear, port?: string): Settings {
  if (gear.kind === 'sound-source') return { distance: inForce(gear).distance }
  const own = settingsOf[gear.kind]
  const gain = gainRange(gear, port, 'gain')
  // A fader, or an output gain that can also take away, rests at its zero mark.
  const rest =
    gain &&
    (gear.kind === 'fader' || gear.kind === 'processor'
      ? Math.min(gain.gainMax, Math.max(gain.gainMin, 0))
      : gain.gainMin)
  return {
    ...(rest !== null && { gain: rest as never }),
    ...(gear.kind === 'desk-channel' && { fader: 0 as never }),
    ...(own.includes('phantom') && gear.kind !== 'interface' && { phantom: false }),
    ...(gear.kind === 'interface' && gain && { phantom: false, pad: false }),
    ...(gear.kind !== 'interface' && own.includes('pad') && { pad: false }),
    ...(own.includes('lowCut') && hasSwitch(gear, port, 'lowCut') && { lowCut: false }),
    ...(gear.kind === 'desk-channel' && { tap: 'post' as const }),
  }
}

/** Only for a session without faults. */
export const completeStage = (stage: Stage, gear: Gear): Stage => ({
  ...stage,
  settings: { ...initialSettings(gear, stage.port), ...stage.settings },
})

export const completeStrip = (strip: Strip, gear: ReadonlyMap<string, Gear>): Strip => ({
  ...strip,
  stages: strip.stages.map((stage) => completeStage(stage, gear.get(stage.gear) as Gear)),
})
