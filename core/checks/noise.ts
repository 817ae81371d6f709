import { isSoundSource } from '../gear'
import { roomInForce } from '../model'
import { formatDecimal, thermalNoiseA } from '../units'
import { noiseCrossover } from '../gear/interface/input-gain'
import { EIN_RESISTANCE, einExcess, einWeighted } from '../gear/equivalent-input-noise'
import type { Check } from './view'
import { NOTHING, inputs, perStage } from './view'

export const einBelowThermal = perStage((_, stage) => {
  if (!('specs' in stage) || !('ein' in stage.specs) || stage.specs.ein === undefined) return NOTHING
  const { ein, einWeighting, einSource = EIN_RESISTANCE } = stage.specs
  if (einExcess({ ein, einWeighting, einSource }) !== null) return NOTHING
  const resistor = thermalNoiseA(einSource)
  return [
    {
      code: 'ein-below-thermal',
      severity: 'caution' as const,
      stage: stage.id,
      message: `The EIN of ${formatDecimal(einWeighted(ein, einWeighting), 1)} dBu(A) is below the thermal noise of the ${formatDecimal(einSource, 0)} Ω that it is stated for, ${formatDecimal(resistor, 1)} dBu(A). It was measured with a shorted input, or it is a misprint. No preamp noise is counted.`,
      action:
        'Check the source resistance and weighting it was measured with: 0 Ω for a shorted input. Or measure it with the input closed by 150 Ω.',
    },
  ]
})

export const pastCrossover: Check = (view) => {
  const input = inputs(view).at(-1)
  if (!input || input.excess === null || input.specs.gainMax === input.specs.gainMin) return []
  const crossover = noiseCrossover(input.specs, input.specs.dynamicRange, input.excess)
  if (input.gain <= crossover) return []
  return [
    {
      code: 'past-crossover',
      severity: 'note',
      stage: input.id,
      message: `Above ${formatDecimal(crossover, 1)} dB of gain the preamp’s noise is over the converter’s: more gain hardly improves the signal-to-noise ratio and costs headroom dB for dB.`,
      action: 'Set the level by the target alone; for less noise go closer to the source or reduce the greatest noise.',
    },
  ]
}

export const electronicsOnly: Check = (view) => {
  const first = view.stages[0]
  if (roomInForce(view.session.room).ambient !== undefined || !isSoundSource(first)) return []
  return [
    {
      code: 'electronics-only',
      severity: 'note',
      stage: first.id,
      message: 'The room’s noise is not set: the floor shown is that of the electronics only.',
      action: 'Enter the room noise in dBA; an empty quiet room has 20 to 35 (common practice).',
    },
  ]
}
