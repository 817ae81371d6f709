import { dbfs, peakOf, raise } from '../../units'
import type { Resolved } from '../resolve'
import type { SourceTraits } from '../traits'
import { plain } from '../traits'

/** A recording played in the host. What is in a file cannot be above 0 dBFS. */
export const playbackChain: SourceTraits<Resolved<'playback'>> = {
  ...plain,
  enter: ({ id, specs }) => {
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
  },
}
