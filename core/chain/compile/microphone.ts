import type { Db, MillivoltsPerPascal } from '../../units'
import { db, dbSpl, dbSplToPascals, raise, ratioToDb, thermalNoiseA, voltsToDbu, volts } from '../../units'
import { inputImpedance, loadingGain } from '../loading'
import type { ResolvedMicrophone, ResolvedStage } from '../resolve'
import type { NoiseSource, TwoPort } from '../two-port'

/**
 * From dB SPL to dBu, open circuit: what 0 dB SPL gives.
 * Example: 10 mV/Pa at 94 dB SPL (1 Pa): 10 mV = −37.8 dBu.
 */
export const sensitivityGain = (sensitivity: MillivoltsPerPascal): Db =>
  db(ONE_VOLT_PER_PASCAL + ratioToDb(sensitivity / 1000))

/** The same at 1 V/Pa. */
const ONE_VOLT_PER_PASCAL = voltsToDbu(volts(dbSplToPascals(dbSpl(0))))

/**
 * A microphone, loaded by what follows it. The load divides signal, room and the microphone's own noise alike.
 *
 * Its noise is its printed self-noise, as if that sound were in the room; a passive one (moving coil, ribbon) has
 * none printed and makes the thermal noise of its impedance.
 */
export function compileMicrophone(stage: ResolvedMicrophone, next: ResolvedStage | undefined): TwoPort {
  const { sensitivity, impedance, maxSpl } = stage.specs
  const loading = loadingGain(impedance, inputImpedance(next))
  const gain = db(sensitivityGain(sensitivity) + loading)
  return {
    stage: stage.id,
    unit: 'dBu',
    gain,
    inputCeiling: maxSpl ?? null,
    outputCeiling: null,
    noise: [ownNoise(stage, gain, loading)],
  }
}

function ownNoise({ specs }: ResolvedMicrophone, gain: Db, loading: Db): NoiseSource {
  return specs.selfNoise === undefined
    ? { name: 'thermal', level: raise(thermalNoiseA(specs.impedance), loading) }
    : { name: 'self-noise', level: raise(specs.selfNoise, gain) }
}
