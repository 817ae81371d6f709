import { gainMinOf } from './gain-min'
import type { Context } from './context'
import type { Part } from './explanation'
import type { Made } from './level'

/** The level at which a stage clips, as it is seen at its output, and the figures that it follows from. */
export function ceilingParts(context: Context, i: number): Made {
  const stage = context.stage(i)
  const gear = `gear.${stage.gear.id}`
  const specs = ('specs' in stage ? stage.specs : {}) as Record<string, number | undefined>
  const spec = (key: string, label: string, unit: string): Part[] => {
    const value = specs[key]
    return value === undefined ? [] : [context.input(`${gear}.${key}`, label, value, unit, null)]
  }
  const certain = (name: string, value: number, unit: string): Part => ({ name, value, unit, adds: null, u: null })
  const next = context.stages[i + 1]
  if (stage.kind === 'sound-source' && next?.kind === 'microphone' && next.specs.maxSpl !== undefined)
    return {
      formula: 'wire-its-ceiling',
      parts: [
        context.input(
          `gear.${next.gear.id}.maxSpl`,
          `Maximum SPL of ${next.gear.name}`,
          next.specs.maxSpl,
          'dB SPL',
          null,
        ),
      ],
      remarks: ['Air does not clip: the capsule in it does.'],
    }
  if (stage.kind === 'interface-output')
    return {
      formula: 'recordings-full-scale',
      parts: [
        context.input(
          `${gear}.outputs.${stage.output.id}.fullScale`,
          'Maximum output level',
          stage.specs.fullScale,
          'dBu',
          null,
        ),
      ],
      remarks: ['Clips at 0 dBFS, which comes out at this level.'],
    }
  if (context.point(i).unit === 'dBFS')
    return { formula: 'levels-dbfs', parts: [certain('Full scale', 0, 'dBFS')], remarks: ['Clips at 0 dBFS.'] }
  const lowest = gainMinOf(stage)
  return {
    formula:
      stage.kind === 'microphone'
        ? 'wire-its-ceiling'
        : stage.kind === 'amplifier'
          ? 'busses-amplifier'
          : 'stages-preamp',
    parts: [
      ...spec('maxSpl', 'Maximum SPL', 'dB SPL'),
      ...spec('maxInput', 'Maximum input level', 'dBu'),
      ...spec('maxOutput', 'Maximum output level', 'dBu'),
      ...spec('maxPower', 'Maximum power', 'W'),
      ...(lowest === null || !('gain' in stage) ? [] : [certain('Gain over its lowest', stage.gain - lowest, 'dB')]),
    ],
    remarks: ['The nearer of what its input takes, as far as its gain has raised it, and what its output gives.'],
  }
}
