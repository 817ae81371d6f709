import type { Db, Dbu } from '../../units'
import { db, dbu, raise } from '../../units'
import type { Resolved } from '../resolve'
import { excessOf } from '../resolve'
import type { NoiseName, NoiseSource, TwoPort } from '../two-port'

/** A fixed gain. Its noise is the excess of its EIN, raised by the gain. */
export function compileBooster({ id, specs }: Resolved<'booster'>): TwoPort {
  return {
    stage: id,
    unit: 'dBu',
    gain: specs.gain,
    inputCeiling: null,
    outputCeiling: specs.maxOutput ?? null,
    noise: inputNoise('booster', specs, specs.gain),
  }
}

/** A preamp. Its input's limit is stated at the lowest gain and falls as the gain rises; its pad moves it up again. */
export function compilePreamp({ id, specs, gain, settings }: Resolved<'preamp'>): TwoPort {
  const pad = settings.pad ? specs.pad : 0
  return {
    stage: id,
    unit: 'dBu',
    gain: db(gain - pad),
    inputCeiling: inputLimit(specs, gain, pad),
    outputCeiling: specs.maxOutput ?? null,
    // The pad stands before the amplifier, so its noise does not pass it.
    noise: [...inputNoise('preamp', specs, gain), ...outputNoise(specs)],
  }
}

/**
 * A desk channel: gain, then the clipping point, then the fader. A level that clips before the fader stays clipped
 * however low the fader stands, so that limit is an input limit here; the sum's or driver's is the output's.
 */
export function compileDeskChannel({ id, specs, gain, settings }: Resolved<'desk-channel'>): TwoPort {
  const pad = settings.pad ? specs.pad : 0
  const behind = settings.tap === 'pre' ? 0 : (settings.fader ?? 0)
  const limits = [
    inputLimit(specs, gain, pad),
    specs.maxOutput === undefined ? null : dbu(specs.maxOutput - gain + pad),
  ].filter((limit) => limit !== null)
  return {
    stage: id,
    unit: 'dBu',
    gain: db(gain - pad + behind),
    inputCeiling: limits.length > 0 ? dbu(Math.min(...limits)) : null,
    outputCeiling: specs.maxOutput ?? null,
    noise: [...inputNoise('preamp', specs, db(gain + behind)), ...outputNoise(specs)],
  }
}

interface InputLimits {
  readonly gainMin: Db
  readonly maxInput?: Dbu | undefined
}

function inputLimit({ maxInput, gainMin }: InputLimits, gain: Db, pad: number): Dbu | null {
  return maxInput === undefined ? null : dbu(maxInput - (gain - gainMin) + pad)
}

function inputNoise(
  name: NoiseName,
  { ein, einWeighting }: { readonly ein: Dbu; readonly einWeighting: 'A' | 'Z' },
  gain: Db,
): NoiseSource[] {
  const excess = excessOf(ein, einWeighting)
  return excess === null ? [] : [{ name, level: raise(excess, gain) }]
}

/** What a stage makes at its output whatever its gain. */
export const outputNoise = ({ outputNoise: level }: { readonly outputNoise?: Dbu | undefined }): NoiseSource[] =>
  level === undefined ? [] : [{ name: 'output-stage', level }]
