import type { Gear } from '../gear'
import { initialSettings } from '../gear'
import type { Stage, Strip } from '../model'

/** Only for a session without faults. */
const completeStage = (stage: Stage, gear: Gear): Stage => ({
  ...stage,
  settings: { ...initialSettings(gear, stage.port), ...stage.settings },
})

export const completeStrip = (strip: Strip, gear: ReadonlyMap<string, Gear>): Strip => ({
  ...strip,
  stages: strip.stages.map((stage) => completeStage(stage, gear.get(stage.gear) as Gear)),
})
