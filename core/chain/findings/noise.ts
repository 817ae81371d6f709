import { formatDecimal } from '../../units'
import { crossoverGain } from '../crossover'
import { inputImpedance } from '../loading'
import { EIN_THERMAL } from '../noise'
import type { Check } from './view'
import { inputs, recorded } from './view'

/** Least ratio of load to source impedance before it is worth a word; 1:10 is the bridging rule (common practice). */
const LEAST_RATIO = 5

export const loading: Check = (view) => view.stages.flatMap((stage, i) => {
  const next = view.stages[i + 1]
  const load = inputImpedance(next)
  if (stage.kind !== 'microphone' || !next || load === undefined || load / stage.specs.impedance >= LEAST_RATIO) return []
  const loss = 20 * Math.log10(1 + stage.specs.impedance / load)
  return [{
    code: 'loading',
    severity: 'caution' as const,
    stage: next.id,
    message: `The input loads "${stage.gear.name}" with only ${formatDecimal(load / stage.specs.impedance, 1)} times its impedance: ${formatDecimal(loss, 1)} dB are lost, and its sound may change.`,
    action: `Use an input of at least ${formatDecimal(10 * stage.specs.impedance, 0)} Ω, or put a booster or preamp with a high input impedance between.`,
  }]
})

export const einBelowThermal: Check = (view) => inputs(view).flatMap(({ id, specs, excess }) => {
  if (specs.ein === undefined || excess !== null) return []
  return [{
    code: 'ein-below-thermal',
    severity: 'caution' as const,
    stage: id,
    message: `The EIN of ${formatDecimal(specs.ein, 1)} dBu(${specs.einWeighting}) is below the thermal noise of the 150 Ω it is measured with, ${formatDecimal(EIN_THERMAL, 1)} dBu(A): a misprint. No preamp noise is counted.`,
    action: 'Look the figure and its weighting up again, or measure it with the input closed by 150 Ω.',
  }]
})

export const pastCrossover: Check = (view) => {
  const end = recorded(view)
  const crossover = end && crossoverGain(end.input)
  if (!end || crossover === null || end.input.gain <= crossover) return []
  return [{
    code: 'past-crossover',
    severity: 'note',
    stage: end.input.id,
    message: `Above ${formatDecimal(crossover, 1)} dB of gain the preamp’s noise is over the converter’s: more gain buys hardly any signal-to-noise and costs headroom dB for dB.`,
    action: 'Set the level by the target alone; for less noise go closer to the source or quieten what sets the floor.',
  }]
}

export const electronicsOnly: Check = (view) => {
  if (view.session.room.ambient !== undefined) return []
  const first = view.stages[0]
  return first ? [{
    code: 'electronics-only',
    severity: 'note',
    stage: first.id,
    message: 'The room’s noise is not given: the floor shown is that of the electronics only.',
    action: 'Enter the room noise in dBA; an empty quiet room has 20 to 35 (common practice).',
  }] : []
}
