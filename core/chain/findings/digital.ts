import type { Finding } from '../../session'
import { formatDecimal, formatSigned } from '../../units'
import { NOTHING, perStage } from './view'

/** The operating system's slider and its like: a gain in numbers, behind the converter. */
export const gainBehindConverter = perStage((view, stage) => {
  if (stage.kind !== 'fader' || stage.gear.place !== 'system' || stage.gain === 0) return NOTHING
  const canRest = stage.specs.gainMin <= 0 && stage.specs.gainMax >= 0
  return [
    {
      code: 'gain-behind-converter',
      severity: 'caution',
      stage: stage.id,
      message: `"${stage.gear.name}" changes the level by ${formatSigned(stage.gain, 1)} dB in numbers, behind the converter: it can neither undo clipping there nor better the signal-to-noise ratio.`,
      action: 'Leave it where it is 0 dB, and work the gain at the hardware.',
      ...(canRest && { changes: [{ strip: view.strip.id, stage: stage.id, setting: 'gain' as const, to: 0 }] }),
    },
  ]
})

/** Channels that an optical 8-channel link carries at a rate: half at double the rate. */
export const opticalChannels = (sampleRate: number): number => (sampleRate > 96_000 ? 2 : sampleRate > 48_000 ? 4 : 8)

/** A second unit behind a digital link: its clock, its channel number, and what fits at this rate. */
export const digitalLink = perStage((view, stage) => {
  if (stage.kind !== 'digital-input') return NOTHING
  const { gear, input } = stage
  const number = gear.inputs.findIndex((each) => each.id === input.id) + 1
  const place = gear.inputs.filter((each) => each.type === 'digital').findIndex((each) => each.id === input.id) + 1
  const carried = opticalChannels(view.session.system.sampleRate)
  const found: Finding[] = [
    {
      code: 'word-clock',
      severity: 'note',
      stage: stage.id,
      joint: true,
      message: `The recorder counts this as input ${number} of "${gear.name}". Two units, one clock: one of them is the master, the other follows it.`,
      action: 'Set the clock source of the following unit to this link, and look for its lock light before every take.',
    },
  ]
  if (place > carried) {
    found.push({
      code: 'link-capacity',
      severity: 'stop',
      stage: stage.id,
      joint: true,
      message: `At ${formatDecimal(view.session.system.sampleRate / 1000, 1)} kHz an optical link carries ${carried} channels; this is its ${place}th.`,
      action: `Use one of its first ${carried} channels, or a lower sample rate.`,
    })
  }
  return found
})
