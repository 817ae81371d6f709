import { powerDifference } from '../numeric/power'
import type { Db, Dbu, Ohms } from '../units'
import { db, dbu, raise, thermalNoiseA } from '../units'
import { inputImpedance, loadingGain, outputImpedance } from './loading'
import type { Resolved, ResolvedStage } from '../resolved/resolve'
import type { NoiseSource } from './two-port'

/**
 * The resistance whose thermal noise stands at a stage's output, where the stage is passive: a pickup, a ribbon or moving
 * coil, a pad, a DI box. An active output has noise of its own in its figures.
 */
function passiveResistance(stage: ResolvedStage, before: ResolvedStage | undefined): Ohms | undefined {
  switch (stage.kind) {
    case 'microphone':
      return stage.specs.selfNoise === undefined ? stage.specs.impedance : undefined
    case 'electric-source':
      return stage.gear.output === 'passive-pickup' && stage.specs.noise === undefined
        ? outputImpedance(stage, undefined)
        : undefined
    case 'pad':
      return stage.specs.outputImpedance
    case 'di-box':
      return isPassiveDi(stage) ? outputImpedance(stage, before) : undefined
    case 'sound-source':
    case 'playback':
    case 'booster':
    case 'preamp':
    case 'desk-channel':
    case 'processor':
    case 'fader':
    case 'link':
    case 'interface':
    case 'digital-input':
    case 'interface-output':
    case 'amplifier':
    case 'loudspeaker':
      return undefined
    default:
      return stage satisfies never
  }
}

/** A DI box that needs no 48 V is a transformer. */
export const isPassiveDi = ({ gear }: Resolved<'di-box'>): boolean => gear.phantom !== 'needed'

/** Thermal noise of a resistance as one noise of a stage; none of 0 Ω, which makes none. */
export const thermal = (resistance: Ohms | undefined, gain: Db = db(0)): NoiseSource[] =>
  resistance === undefined || resistance === 0
    ? []
    : [{ name: 'thermal', level: raise(thermalNoiseA(resistance), gain) }]

/**
 * What a passive two-port adds to the thermal noise that passes it. All resistors being equally warm, the noise at its
 * output is that of its output resistance; what a passive source's resistance brings is a part of it, and is not
 * counted twice.
 * Example: a pad of 20 dB and 150 Ω behind an active output: −132.97 dBu(A); behind 200 Ω of a moving coil −133.03.
 */
export function addedThermal(
  stage: Resolved<'pad'> | Resolved<'di-box'>,
  before: ResolvedStage | undefined,
  loss: Db,
): NoiseSource[] {
  const own = passiveResistance(stage, before)
  if (own === undefined || own === 0) return []
  const total = thermalNoiseA(own)
  const source = before && passiveResistance(before, undefined)
  if (!source) return [{ name: 'thermal', level: total }]
  const passed = dbu(thermalNoiseA(source) + loadingGain(source, inputImpedance(stage)) + loss)
  const rest = powerDifference(total, passed)
  return rest === null ? [] : [{ name: 'thermal', level: rest as Dbu }]
}
