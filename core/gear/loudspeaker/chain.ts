import { GAIN_TOLERANCE } from '../../model'
import type { Db, Dbu } from '../../units'
import { db, raise, ratioToDb, volts, voltsToDbu } from '../../units'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'

/** What the sensitivity of a passive loudspeaker is stated for: 2.83 V, 1 W at 8 Ω. */
const PASSIVE_DRIVE: Dbu = voltsToDbu(volts(Math.sqrt(8)))

/**
 * A loudspeaker as it arrives at the listener, in dB SPL: sensitivity (at 1 m, for 0 dBu, knob at its mark) + level + knob
 * − 20 lg d, and 10 lg n for n alike, unrelated (free field, point source).
 * Example: 100 dB at 0 dBu, −6 dBu, 4 m, two: 84.97 dB SPL.
 *
 * Its limits are its maximum input and its maximum SPL; the nearer one is the ceiling.
 */
export const loudspeakerChain: LineTraits<Resolved<'loudspeaker'>> = {
  ...plain,
  compile: (stage) => {
    const { id, specs } = stage
    const atListener = db(atOneMetre(stage) + listenerGain(stage))
    return {
      stage: id,
      unit: 'dBSPL',
      gain: atListener,
      inputCeiling: specs.maxInput ?? null,
      outputCeiling: specs.maxSpl === undefined ? null : raise(specs.maxSpl, listenerGain(stage)),
      noise: [],
    }
  },
  inputClass: ({ gear }) => (gear.power === 'active' ? 'line' : null),
  powered: ({ gear }) => gear.power === 'active',
  distance: ({ settings }) => settings.distance ?? 1,
  gainTolerance: ({ specs }) => (specs.gainMax > specs.gainMin ? GAIN_TOLERANCE.fader : null),
}

/** What one loudspeaker of its kind gives at 1 m for 0 dBu, its knob as it is set, dB. */
export const atOneMetre = ({ gear, specs, gain }: Resolved<'loudspeaker'>): Db =>
  db(specs.sensitivity + gain - (gear.power === 'passive' ? PASSIVE_DRIVE : 0))

/** From 1 m of one to the listener of all of them. */
export const listenerGain = ({ settings, specs }: Resolved<'loudspeaker'>): Db =>
  db(-ratioToDb(settings.distance ?? 1) + 10 * Math.log10(specs.count))
