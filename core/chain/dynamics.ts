import type { Block } from '../gear'
import { isProcessor } from '../gear'
import type { Point } from './cascade'
import { blockCurve, isDynamic } from '../gear/processor/curve'
import { jointGain } from './joint'
import type { Resolved, ResolvedStage } from '../gear/stage'

/** Peaks that far under a threshold meet a processor that is not set up yet, dB (common practice, no source). */
const NOT_SET_UP = 10

/** What a compressor takes off at the rehearsed peak where nothing else is wanted, dB (common practice: 3 to 6). */
export const USUAL_REDUCTION = 3

/** How far the average is to lie over a gate’s threshold, dB (common practice, no source). */
const OVER_GATE = 10

/** The level that a processor is to get: what one of its sections is to see, and at which of its levels. */
export interface DynamicAim {
  readonly section: Extract<Block, { type: 'compressor' | 'limiter' | 'expander' }>
  /** The level at that section’s own input that is wanted. */
  readonly level: number
  readonly of: 'peak' | 'average'
  /** The level there now, from what arrives at the processor. */
  readonly now: (before: Point) => number
}

/**
 * What a processor with a threshold is to be given. One that has been set up is a choice: its level stays, and there is no aim. One
 * that is not – the rehearsed peak more than 10 dB under its threshold, or a wanted reduction is given – is aimed at: a compressor takes
 * off what is wanted at the rehearsed peak (threshold + wanted/(1 − 1/ratio)), a limiter’s ceiling is the rehearsed peak, a gate’s
 * threshold lies 10 dB under the average.
 * Examples: ratio 4:1, 3 dB off: 4.0 dB over the threshold; 6 dB off: 8.0.
 * @returns `null` for a processor that was set up, or has no such section
 */
export function dynamicAim(stages: readonly ResolvedStage[], points: readonly Point[], at: number): DynamicAim | null {
  const [stage, before] = [stages[at], points[at - 1]]
  if (!isProcessor(stage) || !before) return null
  const joint = jointGain(stages[at - 1] as ResolvedStage, stage, stages[at - 2])
  const aims = stage.gear.blocks.flatMap((block, i) => aimOf(stage, block, i, joint) ?? [])
  return aims.find((aim) => !isSetUp(aim, aim.now(before))) ?? null
}

/** Whether the level at a stage is a choice of how it sounds, and not to be turned for a target behind it. */
export const isHeldAt = (stages: readonly ResolvedStage[], points: readonly Point[], at: number): boolean => {
  const stage = stages[at]
  if (!stage || stage.driven) return stage !== undefined
  if (!hasDynamics(stage)) return false
  const aim = dynamicAim(stages, points, at)
  return aim === null || (aim.section.type === 'compressor' && aim.section.takesOff !== undefined)
}

/** Whether a stage acts by a threshold. */
export const hasDynamics = (stage: ResolvedStage): boolean => isProcessor(stage) && stage.gear.blocks.some(isDynamic)

function aimOf(stage: Resolved<'processor'>, block: Block, i: number, joint: number): DynamicAim | null {
  if (!isDynamic(block)) return null
  const before = stage.gear.blocks.slice(0, i).map(blockCurve)
  const into = (level: number) => before.reduce((at, curve) => curve(at), level + joint)
  switch (block.type) {
    case 'compressor': {
      const { threshold, ratio, takesOff = USUAL_REDUCTION } = block
      if (ratio <= 1) return null
      const level = threshold + takesOff / (1 - 1 / ratio)
      return { section: block, level, of: 'peak', now: ({ peak }) => into(peak) }
    }
    case 'limiter':
      return { section: block, level: block.ceiling, of: 'peak', now: ({ peak }) => into(peak) }
    case 'expander':
      return { section: block, level: block.threshold + OVER_GATE, of: 'average', now: ({ average }) => into(average) }
    default:
      return null
  }
}

function isSetUp({ section }: DynamicAim, now: number): boolean {
  switch (section.type) {
    case 'compressor':
      return section.takesOff === undefined && now >= section.threshold - NOT_SET_UP
    case 'limiter':
      return now >= section.ceiling - NOT_SET_UP
    case 'expander':
      return now >= section.threshold
  }
}
