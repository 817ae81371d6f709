import type { Db, Dbu } from '../../units'
import { db } from '../../units'
import type { Resolved } from '../resolve'
import type { TwoPort } from '../two-port'

const passive = (stage: string, gain: Db, inputCeiling: Dbu | null): TwoPort => ({
  stage,
  unit: 'dBu',
  gain,
  inputCeiling,
  outputCeiling: null,
  noise: [],
})

/** A pad: a fixed loss. Its resistors' noise is far below what follows and is not counted. */
export const compilePad = ({ id, specs }: Resolved<'pad'>): TwoPort => passive(id, db(-specs.loss), null)

/** A DI box of turns ratio n: −20 lg n. Example: 12 : 1 = −21.58 dB. */
export const compileDiBox = ({ id, specs }: Resolved<'di-box'>): TwoPort =>
  passive(id, db(-20 * Math.log10(specs.ratio)), specs.maxInput ?? null)
