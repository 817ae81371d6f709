import type { ResolvedStage } from '#core/resolved/resolve'
import { kinds } from '#core/model'

/** What a stage is called above its name: a unit stands in a strip by one of its inputs or outputs. */
export const stageTitle = ({ kind, gear }: Pick<ResolvedStage, 'kind' | 'gear'>): string =>
  kind === 'interface-output' ? 'Interface output' : kinds[gear.kind].words.title
