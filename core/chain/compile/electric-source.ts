import { dbu, peakOf, raise, thermalNoiseA } from '../../units'
import { inputImpedance, loadingGain } from '../loading'
import type { Resolved, ResolvedStage } from '../resolve'
import type { NoiseSource, Programme } from '../two-port'

/**
 * An electric source, loaded by what follows it. A passive pickup makes the thermal noise of its impedance; one with
 * a stated noise makes that; any other is taken to be silent.
 */
export function compileElectricSource(
  { id, gear, specs }: Resolved<'electric-source'>,
  next: ResolvedStage | undefined,
): Programme {
  const loading = loadingGain(specs.impedance, inputImpedance(next))
  const average = raise(specs.level, loading)
  const peak = peakOf(average, specs.crest)
  const noise: NoiseSource[] =
    specs.noise !== undefined
      ? [{ name: 'source', level: dbu(specs.noise + loading) }]
      : gear.output === 'passive-pickup' && specs.impedance !== undefined
        ? [{ name: 'thermal', level: raise(thermalNoiseA(specs.impedance), loading) }]
        : []
  return {
    stage: id,
    unit: 'dBu',
    average,
    peak,
    surgePeak: raise(peak, specs.surge),
    ceiling: specs.maxOutput === undefined ? null : raise(specs.maxOutput, loading),
    noise,
  }
}
