import { formatDecimal } from '../../units'
import { crossoverGain } from '../crossover'
import { EIN_THERMAL } from '../noise'
import { excessOf } from '../resolve'
import type { Check } from './view'
import { NOTHING, inputs, perStage } from './view'

export const einBelowThermal = perStage((_, stage) => {
  if (!('specs' in stage) || !('ein' in stage.specs)) return NOTHING
  const { ein, einWeighting } = stage.specs
  const excess = stage.kind === 'interface' ? stage.excess : ein === undefined ? null : excessOf(ein, einWeighting)
  if (ein === undefined || excess !== null) return NOTHING
  return [
    {
      code: 'ein-below-thermal',
      severity: 'caution' as const,
      stage: stage.id,
      message: `The EIN of ${formatDecimal(ein, 1)} dBu(${einWeighting}) is below the thermal noise of the 150 Ω it is measured with, ${formatDecimal(EIN_THERMAL, 1)} dBu(A): a misprint. No preamp noise is counted.`,
      action: 'Look the figure and its weighting up again, or measure it with the input closed by 150 Ω.',
    },
  ]
})

export const pastCrossover: Check = (view) => {
  const input = inputs(view).at(-1)
  const crossover = input ? crossoverGain(input) : null
  if (!input || crossover === null || input.gain <= crossover) return []
  return [
    {
      code: 'past-crossover',
      severity: 'note',
      stage: input.id,
      message: `Above ${formatDecimal(crossover, 1)} dB of gain the preamp’s noise is over the converter’s: more gain buys hardly any signal-to-noise and costs headroom dB for dB.`,
      action:
        'Set the level by the target alone; for less noise go closer to the source or quieten what sets the floor.',
    },
  ]
}

export const electronicsOnly: Check = (view) => {
  const first = view.stages[0]
  if (view.session.room.ambient !== undefined || first?.kind !== 'sound-source') return []
  return [
    {
      code: 'electronics-only',
      severity: 'note',
      stage: first.id,
      message: 'The room’s noise is not given: the floor shown is that of the electronics only.',
      action: 'Enter the room noise in dBA; an empty quiet room has 20 to 35 (common practice).',
    },
  ]
}
