import { inForce } from './field'
import type { Gear } from './gear'
import type { Stage, Strip } from './session'

/** What a stage’s settings are where the file leaves them out. Only for a session without faults. */
export function completeStage(stage: Stage, gear: Gear): Stage {
  switch (gear.kind) {
    case 'sound-source':
      return { ...stage, settings: { distance: inForce(gear).distance, ...stage.settings } }
    case 'microphone':
      return stage
    case 'interface': {
      const input = gear.inputs.find((candidate) => candidate.id === stage.port)
      const lowest = input ? inForce(input).gainMin : undefined
      return { ...stage, settings: { gain: lowest, phantom: false, pad: false, ...stage.settings } }
    }
  }
}

export const completeStrip = (strip: Strip, gear: ReadonlyMap<string, Gear>): Strip => ({
  ...strip,
  stages: strip.stages.map((stage) => completeStage(stage, gear.get(stage.gear) as Gear)),
})
