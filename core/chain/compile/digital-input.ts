import { db, dbfs } from '../../units'
import type { ResolvedDigitalInput } from '../../resolved/resolve'
import type { LineTraits } from '../traits'
import { plain } from '../traits'

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
}
