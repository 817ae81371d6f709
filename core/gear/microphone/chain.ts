import type { Db, Dbfs, MillivoltsPerPascal } from '../../units'
import { db, dbfs, dbSpl, dbSplToPascals, raise, ratioToDb, voltsToDbu, volts } from '../../units'
import { loadingGain } from '../loading'
import { thermal } from '../thermal'
import { diffuseGain, offAxisGain } from './pattern'
import type { ResolvedMicrophone } from '../stage'
import type { Around, LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import type { Pickup, TwoPort } from '../two-port'

const isDigital = ({ specs }: ResolvedMicrophone) => specs.digitalSensitivity !== undefined

export const microphoneChain: LineTraits<ResolvedMicrophone> = {
  ...plain,
  compile,
  outputClass: (stage) => (isDigital(stage) ? null : 'mic'),
  phantomAttitude: (stage) => (isDigital(stage) ? null : stage.gear.phantom),
  floats: ({ gear }) => gear.principle !== 'condenser',
  converts: isDigital,
  outputImpedance: ({ specs }) => specs.impedance,
  thermalResistance: ({ specs }) => (specs.selfNoise === undefined ? specs.impedance : undefined),
  showsLoaded: true,
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
function compile(stage: ResolvedMicrophone, { load }: Around): TwoPort {
  const { sensitivity, impedance, maxSpl, selfNoise, digitalSensitivity } = stage.specs
  if (digitalSensitivity !== undefined) return compileDigital(stage, digitalSensitivity)
  const loading = loadingGain(impedance, load)
  // The session was read: without a converter of its own it has a sensitivity.
  const gain = db(sensitivityGain(sensitivity as MillivoltsPerPascal) + loading)
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

/** Sound pressure of 1 Pa, which the level of a digital microphone is stated at, dB SPL. */
export const ONE_PASCAL = 94

/**
 * One with a converter of its own, from dB SPL to dBFS. Its gain stands before the converter, which clips at 0 dBFS.
 * Example: −38 dBFS at 94 dB SPL, gain 20 dB up: 74 dB SPL give −38 dBFS.
 */
function compileDigital(stage: ResolvedMicrophone, atOnePascal: Dbfs): TwoPort {
  const gain = digitalGain(stage, atOnePascal)
  const { maxSpl, selfNoise } = stage.specs
  return {
    stage: stage.id,
    unit: 'dBFS',
    gain,
    pickup: directivity(stage),
    inputCeiling: maxSpl ?? null,
    outputCeiling: dbfs(0),
    noise: selfNoise === undefined ? [] : [{ name: 'self-noise', level: raise(selfNoise, gain) }],
  }
}

/** From dB SPL to dBFS, as its gain is set. */
const digitalGain = ({ specs, gain }: ResolvedMicrophone, atOnePascal: Dbfs): Db =>
  db(atOnePascal - ONE_PASCAL + gain - (specs.gainMin ?? 0))

/** What its pattern takes in at its angle; without a stated pattern it counts as omni, the cautious case. */
export function directivity({ gear, settings }: ResolvedMicrophone): Pickup | undefined {
  if (gear.pattern === undefined || gear.pattern === 'omni') return undefined
  return { programme: offAxisGain(gear.pattern, settings.angle ?? 0), room: diffuseGain(gear.pattern) }
}
