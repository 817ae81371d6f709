import type { ResolvedDigitalInput } from './stage'
import { db, dbfs } from '../../units'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'

/** Numbers from another unit: nothing is added, and full scale stays full scale. */
export const digitalInputChain: LineTraits<ResolvedDigitalInput> = {
  ...plain,
  compile: ({ id }) => ({
    stage: id,
    unit: 'dBFS',
    gain: db(0),
    inputCeiling: null,
    outputCeiling: dbfs(0),
    noise: [],
  }),
  powered: () => true,
  inPlug: ({ input }) => input.plug,
  port: ({ input }) => ({ side: 'inputs', id: input.id }),
  figures: () => ({ owner: { specs: {} }, table: {} }),
}
