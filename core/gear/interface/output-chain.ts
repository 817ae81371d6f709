import type { ResolvedOutput } from './stage'
import { db, dbfs, dbu } from '../../units'
import { outputSpecs } from './interface'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'

/**
 * An interface output, from dBFS to dBu: 0 dBFS comes out as its full scale, and its converter's noise lies its dynamic range under
 * that.
 */
export const interfaceOutputChain: LineTraits<ResolvedOutput> = {
  ...plain,
  compile: ({ id, specs: { fullScale, dynamicRange } }) => ({
    stage: id,
    unit: 'dBu',
    gain: db(fullScale),
    inputCeiling: dbfs(0),
    outputCeiling: null,
    noise: dynamicRange === undefined ? [] : [{ name: 'converter', level: dbu(fullScale - dynamicRange) }],
  }),
  outputClass: () => 'line',
  phantomAttitude: () => 'harmless',
  powered: () => true,
  outputImpedance: ({ specs }) => specs.impedance,
  port: ({ output }) => ({ side: 'outputs', id: output.id }),
  figures: ({ output }) => ({ owner: output, table: outputSpecs }),
}
