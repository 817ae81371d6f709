import { dbfs, peakOf, raise } from '../../units'
import type { Resolved } from '../resolve'
import type { Programme } from '../two-port'

/** A recording played in the host. What is in a file cannot be above 0 dBFS. */
export function compilePlayback({ id, specs }: Resolved<'playback'>): Programme {
  const peak = peakOf(specs.level, specs.crest)
  return {
    stage: id,
    unit: 'dBFS',
    average: specs.level,
    peak,
    surgePeak: raise(peak, specs.surge),
    ceiling: dbfs(0),
    noise: specs.noise === undefined ? [] : [{ name: 'source', level: specs.noise }],
  }
}
