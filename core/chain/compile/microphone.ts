import type { Db, MillivoltsPerPascal } from '../../units'
import { db, dbSpl, dbSplToPascals, raise, ratioToDb, voltsToDbu, volts } from '../../units'
import { inputImpedance, loadingGain } from '../loading'
import { thermal } from '../passive'
import { diffuseGain, offAxisGain } from '../pattern'
import type { ResolvedMicrophone } from '../resolve'
import type { Around, LineTraits } from '../traits'
import { plain } from '../traits'
import type { Pickup, TwoPort } from '../two-port'

export const microphoneChain: LineTraits<ResolvedMicrophone> = {
  ...plain,
  compile,
  outputClass: () => 'mic',
  phantomAttitude: ({ gear }) => gear.phantom,
  floats: ({ gear }) => gear.principle !== 'condenser',
}

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
function compile(stage: ResolvedMicrophone, { next }: Around): TwoPort {
  const { sensitivity, impedance, maxSpl, selfNoise } = stage.specs
  const loading = loadingGain(impedance, inputImpedance(next))
  const gain = db(sensitivityGain(sensitivity) + loading)
  return {
    stage: stage.id,
    unit: 'dBu',
    gain,
    pickup: directivity(stage),
    inputCeiling: maxSpl ?? null,
    outputCeiling: null,
    noise:
      selfNoise === undefined ? thermal(impedance, loading) : [{ name: 'self-noise', level: raise(selfNoise, gain) }],
  }
}

/** What its pattern takes in at its angle; without a stated pattern it counts as omni, the cautious case. */
export function directivity({ gear, settings }: ResolvedMicrophone): Pickup | undefined {
  if (gear.pattern === undefined || gear.pattern === 'omni') return undefined
  return { programme: offAxisGain(gear.pattern, settings.angle ?? 0), room: diffuseGain(gear.pattern) }
}
