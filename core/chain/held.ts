import { isDynamic } from './curve'
import type { ResolvedStage } from './resolve'

/**
 * Whether the level that a stage gets is a choice of how it sounds, and no gain to be shared out: a processor with a
 * threshold, or a stage that is driven on purpose.
 */
export const isHeld = (stage: ResolvedStage): boolean =>
  stage.driven || (stage.kind === 'processor' && stage.gear.blocks.some(isDynamic))
