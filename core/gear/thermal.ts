import { powerDifference } from '../numeric/power'
import type { Db, Dbu, Ohms } from '../units'
import { db, dbu, raise, thermalNoiseA } from '../units'
import type { Around } from './chain-traits'
import { loadingGain } from './loading'
import type { NoiseSource } from './two-port'

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
 * @param own its output resistance
 * @param input its input impedance, which loads the source
 * @param loss what it does to a level, dB
 */
export function addedThermal(
  own: Ohms | undefined,
  { sourceThermal: source }: Pick<Around, 'sourceThermal'>,
  input: Ohms | undefined,
  loss: Db,
): NoiseSource[] {
  if (own === undefined || own === 0) return []
  const total = thermalNoiseA(own)
  if (!source) return [{ name: 'thermal', level: total }]
  const passed = dbu(thermalNoiseA(source) + loadingGain(source, input) + loss)
  const rest = powerDifference(total, passed)
  return rest === null ? [] : [{ name: 'thermal', level: rest as Dbu }]
}
