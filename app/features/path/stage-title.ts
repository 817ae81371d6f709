import type { ResolvedStage } from '#core/gear/stage'
import { isInterfaceOutput, kinds } from '#core/gear'

/** What a stage is called above its name: a unit stands in a strip by one of its inputs or outputs. */
export const stageTitle = (stage: Pick<ResolvedStage, 'kind' | 'gear'>): string =>
  isInterfaceOutput(stage) ? 'Interface output' : kinds[stage.gear.kind].words.title
