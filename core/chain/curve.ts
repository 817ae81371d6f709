import type { Block } from '../session'

/** A level in, a level out, both at the processor's own reference. */
export type Curve = (level: number) => number

/**
 * The static curve of one block.
 * Compressor above threshold T with ratio R: T + (x − T)/R. −10 through −20, 4 : 1: −17.5.
 * Expander below T: T + (x − T)·R, at most its range less. −40 through −30, 2 : 1: −50. Limiter: min(x, ceiling).
 */
export function blockCurve(block: Block): Curve {
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

/** All blocks in their order; `undefined` where none is in the way. */
export function blocksCurve(blocks: readonly Block[]): Curve | undefined {
  const curves = blocks.filter((block) => block.on).map(blockCurve)
  if (curves.length === 0) return undefined
  return (level) => curves.reduce((at, curve) => curve(at), level)
}
