import type { Block } from './processor'

/**
 * The static curve of a processor: rising, a level in and a level out, both at the processor's own reference.
 * It acts on average, peak, surge and noise each by itself.
 */
export interface Curve {
  readonly level: (level: number) => number
  /** Gains that are the same at every level: make-up, equaliser, gain sections. What else it takes off is reduction. */
  readonly fixed: number
}

/**
 * The static curve of one section.
 * Compressor above threshold T with ratio R: T + (x − T)/R. −10 through −20, 4 : 1: −17.5.
 * Expander below T: T + (x − T)·R, at most its range less. −40 through −30, 2 : 1: −50. Limiter: min(x, ceiling).
 */
export function blockCurve(block: Block): (level: number) => number {
  if (!block.on) return (level) => level
  switch (block.type) {
    case 'compressor':
      return (level) =>
        (level > block.threshold ? block.threshold + (level - block.threshold) / block.ratio : level) + block.makeUp
    case 'expander':
      return (level) =>
        level - Math.min(block.range ?? Infinity, Math.max(0, block.threshold - level) * (block.ratio - 1))
    case 'limiter':
      return (level) => Math.min(level, block.ceiling)
    case 'equaliser':
      return (level) => level + block.change
    case 'gain':
      return (level) => level + block.gain
  }
}

/** All sections in their order; `undefined` where none is in the way. */
export function blocksCurve(blocks: readonly Block[]): Curve | undefined {
  const active = blocks.filter((block) => block.on)
  if (active.length === 0) return undefined
  const curves = active.map(blockCurve)
  return {
    level: (level) => curves.reduce((at, curve) => curve(at), level),
    fixed: active.reduce((sum, block) => sum + fixedGain(block), 0),
  }
}

function fixedGain(block: Block): number {
  switch (block.type) {
    case 'compressor':
      return block.makeUp
    case 'equaliser':
      return block.change
    case 'gain':
      return block.gain
    case 'expander':
    case 'limiter':
      return 0
  }
}

/** Whether a section acts by a threshold: how it sounds then depends on the level that it gets. */
export const isDynamic = ({ on, type }: Block): boolean =>
  on && (type === 'compressor' || type === 'expander' || type === 'limiter')
