import { isMicrophone, isSoundSource } from '../gear'
import { explainedTraits } from '../gear/explained'
import type { ResolvedMicrophone } from '../gear/stage'
import type { Context } from './context'
import type { Part } from './explanation'
import { stageParts } from './gain'
import type { Made } from './level'

/** The level at which a stage clips, as it is seen at its output, and the figures that it follows from. */
export function ceilingParts(context: Context, i: number): Made {
  const stage = context.stage(i)
  const specs = ('specs' in stage ? stage.specs : {}) as Record<string, number | undefined>
  const spec = (key: string, label: string, unit: string): Part[] => {
    const value = specs[key]
    return value === undefined ? [] : [context.input(`${context.figuresOf(i)}.${key}`, label, value, unit, null)]
  }
  const certain = (name: string, value: number, unit: string): Part => ({ name, value, unit, adds: null, u: null })
  const next = context.stages[i + 1]
  if (isSoundSource(stage) && isMicrophone(next) && next.specs.maxSpl !== undefined) return atCapsule(context, next)
  const { ceiling, ceilingFormula = 'stages-preamp', limitStatedAt } = explainedTraits(stage)
  if (ceiling) return stageParts(context, i, ceiling(stage))
  if (context.point(i).unit === 'dBFS')
    return { formula: 'levels-dbfs', parts: [certain('Full scale', 0, 'dBFS')], remarks: ['Clips at 0 dBFS.'] }
  return {
    formula: ceilingFormula,
    parts: [
      ...spec('maxSpl', 'Maximum SPL', 'dB SPL'),
      ...spec('maxInput', 'Maximum input level', 'dBu'),
      ...spec('maxOutput', 'Maximum output level', 'dBu'),
      ...spec('maxPower', 'Maximum power', 'W'),
      ...(limitStatedAt && 'gain' in stage
        ? [certain('Gain over its lowest', stage.gain - limitStatedAt(stage), 'dB')]
        : []),
    ],
    remarks: ['The nearer of what its input takes, as far as its gain has raised it, and what its output gives.'],
  }
}

const atCapsule = (context: Context, { gear, specs }: ResolvedMicrophone): Made => ({
  formula: 'wire-its-ceiling',
  parts: [context.input(`gear.${gear.id}.maxSpl`, `Maximum SPL of ${gear.name}`, specs.maxSpl ?? 0, 'dB SPL', null)],
  remarks: ['Air does not clip: the capsule in it does.'],
})
