import { db, dbu, peakOf, raise } from '../../units'
import { loadingGain } from '../loading'
import { electricImpedance, potOf } from './circuit'
import { thermal } from '../thermal'
import { volumeGain } from './pickup'
import type { Resolved } from '../stage'
import type { Around, SourceTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import type { NoiseSource, Programme } from '../two-port'

type Source = Resolved<'electric-source'>
const isPickup = ({ gear }: Source) => gear.output === 'passive-pickup'

export const electricSourceChain: SourceTraits<Source> = {
  ...plain,
  enter,
  outputClass: (stage) => (isPickup(stage) ? 'instrument' : 'line'),
  phantomAttitude: ({ gear }) => (gear.plugs?.out?.balance === 'one-leg' ? 'harmful' : 'harmless'),
  floats: isPickup,
  outputImpedance: electricImpedance,
  thermalResistance: (stage) =>
    isPickup(stage) && stage.specs.noise === undefined ? electricImpedance(stage) : undefined,
  showsLoaded: true,
}

/**
 * An electric source, loaded by what follows it. A passive volume knob that is down is a loss inside the source. A
 * passive pickup makes the thermal noise of its resistance; one with a stated noise makes that; any other is taken to be
 * silent. A coil's inductance costs treble, not level: the level is that of the fundamentals.
 */
function enter(stage: Source, { load }: Around): Programme {
  const { id, specs } = stage
  const loading = loadingGain(electricImpedance(stage), load)
  const loss = isPickup(stage) ? volumeLoss(specs) : 0
  const gain = db(loading - loss)
  const average = raise(specs.level, gain)
  const peak = peakOf(average, specs.crest)
  return {
    stage: id,
    origin: stage.gear.id,
    unit: 'dBu',
    average,
    peak,
    surgePeak: raise(peak, specs.surge),
    ceiling: specs.maxOutput === undefined ? null : raise(specs.maxOutput, gain),
    noise: ownNoise(stage, loading, loss),
  }
}

/** Behind a knob that is down stands at least the coil's resistance: its thermal noise does not go down with the signal. */
function ownNoise(stage: Source, loading: number, loss: number): NoiseSource[] {
  const { noise } = stage.specs
  if (noise !== undefined) return [{ name: 'source', level: dbu(noise + loading - loss) }]
  return isPickup(stage) ? thermal(electricImpedance(stage), db(loading)) : []
}

/** What a passive volume control takes off with nothing behind it, dB: by its circuit where that is known, else as stated. */
export function volumeLoss(specs: Source['specs']): number {
  const pot = potOf(specs)
  return pot && specs.impedance !== undefined
    ? -volumeGain({ resistance: specs.impedance, pot })
    : (specs.volumeLoss ?? 0)
}
