import { db, dbfs, dbu } from '../../units'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import type { TwoPort } from '../two-port'

const isWireless = ({ gear }: Resolved<'link'>) => gear.medium === 'wireless'

export const linkChain: LineTraits<Resolved<'link'>> = {
  ...plain,
  compile: (stage) => (isWireless(stage) ? wireless(stage) : digital(stage)),
  outputClass: (stage) => (isWireless(stage) ? stage.gear.level : null),
  phantomAttitude: (stage) =>
    !isWireless(stage) ? null : stage.gear.plugs?.out?.balance === 'one-leg' ? 'harmful' : 'harmless',
  powered: () => true,
}

/** A wireless link's noise lies its dynamic range under its highest output. */
function wireless({ id, specs: { gain, maxInput, maxOutput, dynamicRange } }: Resolved<'link'>): TwoPort {
  const known = maxOutput !== undefined && dynamicRange !== undefined
  return {
    stage: id,
    unit: 'dBu',
    gain,
    inputCeiling: maxInput ?? null,
    outputCeiling: maxOutput ?? null,
    noise: known ? [{ name: 'link', level: dbu(maxOutput - dynamicRange) }] : [],
  }
}

/** A digital link passes numbers on. */
const digital = ({ id, specs: { dynamicRange } }: Resolved<'link'>): TwoPort => ({
  stage: id,
  unit: 'dBFS',
  gain: db(0),
  inputCeiling: null,
  outputCeiling: dbfs(0),
  noise: dynamicRange === undefined ? [] : [{ name: 'link', level: dbfs(-dynamicRange) }],
})
