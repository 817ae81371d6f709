import { db, dbfs, dbu } from '../../units'
import { blocksCurve } from '../curve'
import type { Resolved, ResolvedDigitalInput } from '../resolve'
import type { TwoPort } from '../two-port'
import { outputNoise } from './amplifiers'

/** A processor: its blocks' static curve, then its output gain. Fixed point clips at 0 dBFS, floating point nowhere. */
export function compileProcessor({ id, gear, specs, gain }: Resolved<'processor'>): TwoPort {
  const digital = gear.domain === 'digital'
  return {
    stage: id,
    unit: digital ? 'dBFS' : 'dBu',
    gain,
    curve: blocksCurve(gear.blocks),
    inputCeiling: digital ? null : (specs.maxInput ?? null),
    outputCeiling: digital ? digitalCeiling(gear.arithmetic) : (specs.maxOutput ?? null),
    noise: digital ? [] : outputNoise(specs),
  }
}

/** A fader: the level before it clips whatever the fader says. */
export function compileFader({ id, gear, specs, gain }: Resolved<'fader'>): TwoPort {
  const digital = gear.place !== 'desk'
  return {
    stage: id,
    unit: digital ? 'dBFS' : 'dBu',
    gain,
    inputCeiling: digital ? null : (specs.maxInput ?? null),
    outputCeiling: digital ? digitalCeiling(gear.arithmetic) : (specs.maxOutput ?? null),
    noise: digital ? [] : outputNoise(specs),
  }
}

const digitalCeiling = (arithmetic: 'fixed' | 'float') => (arithmetic === 'fixed' ? dbfs(0) : null)

/** A link. A wireless one's noise lies its dynamic range under its highest output; a digital one passes numbers on. */
export function compileLink({ id, gear, specs }: Resolved<'link'>): TwoPort {
  if (gear.medium !== 'wireless') {
    return {
      stage: id,
      unit: 'dBFS',
      gain: db(0),
      inputCeiling: null,
      outputCeiling: dbfs(0),
      noise: specs.dynamicRange === undefined ? [] : [{ name: 'link', level: dbfs(-specs.dynamicRange) }],
    }
  }
  const known = specs.maxOutput !== undefined && specs.dynamicRange !== undefined
  return {
    stage: id,
    unit: 'dBu',
    gain: specs.gain,
    inputCeiling: specs.maxInput ?? null,
    outputCeiling: specs.maxOutput ?? null,
    noise: known ? [{ name: 'link', level: dbu((specs.maxOutput ?? 0) - (specs.dynamicRange ?? 0)) }] : [],
  }
}

/** Numbers from another unit: nothing is added, and full scale stays full scale. */
export const compileDigitalInput = ({ id }: ResolvedDigitalInput): TwoPort => ({
  stage: id,
  unit: 'dBFS',
  gain: db(0),
  inputCeiling: null,
  outputCeiling: dbfs(0),
  noise: [],
})
