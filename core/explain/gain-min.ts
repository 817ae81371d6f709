import type { ResolvedStage } from '../resolved/resolve'

/** The lowest gain of a stage whose input’s limit is stated there. */
export const gainMinOf = (stage: ResolvedStage): number | null =>
  stage.kind === 'preamp' || stage.kind === 'desk-channel' ? stage.specs.gainMin : null
