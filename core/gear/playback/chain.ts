import type { Playback } from './playback'
import type { Dbfs } from '../../units'
import { dbfs, peakOf, raise } from '../../units'
import type { Resolved } from '../stage'
import type { SourceTraits } from '../chain-traits'
import { plain } from '../chain-traits'

/** A recording played in the host. What is in a file cannot be above 0 dBFS. */
export const playbackChain: SourceTraits<Resolved<'playback'>> = {
  ...plain,
  isBox: () => false,
  enter: ({ id, specs, gear }) => {
    const { average, peak } = loudest(gear.pieces) ?? { average: specs.level, peak: peakOf(specs.level, specs.crest) }
    return {
      stage: id,
      origin: gear.id,
      unit: 'dBFS',
      average,
      peak,
      surgePeak: raise(peak, specs.surge),
      ceiling: dbfs(0),
      noise: specs.noise === undefined ? [] : [{ name: 'source', level: specs.noise }],
    }
  },
}

/** Of several pieces, each with its trim: the highest average and the highest peak, be they of one piece or of two. */
function loudest(pieces: Playback['pieces']): { average: Dbfs; peak: Dbfs } | null {
  if (!pieces || pieces.length === 0) return null
  const trimmed = pieces.map(({ level, crest, trim }) => {
    const average = raise(level, trim)
    return { average, peak: peakOf(average, crest) }
  })
  return {
    average: dbfs(Math.max(...trimmed.map((each) => each.average))),
    peak: dbfs(Math.max(...trimmed.map((each) => each.peak))),
  }
}
