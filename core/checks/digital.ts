import type { ResolvedDigitalInput } from '../gear'
import { isDigitalInput, isFader, isLink } from '../gear'
import type { Draft } from './finding'
import { db, formatDecimal, formatSigned } from '../units'
import type { ResolvedStage } from '../gear/stage'
import type { StripView } from './view'
import { NOTHING, perStage } from './view'

/** The operating system's slider and its like: a gain in numbers, behind the converter. */
export const gainBehindConverter = perStage((view, stage) => {
  if (!isFader(stage) || stage.gear.place !== 'system' || stage.gain === 0) return NOTHING
  const canRest = stage.specs.gainMin <= 0 && stage.specs.gainMax >= 0
  const action = 'Leave it at its 0 dB mark, and set the gain at the hardware.'
  return [
    {
      code: 'gain-behind-converter',
      severity: 'caution',
      stage: stage.id,
      message: `“${stage.gear.name}” changes the level by ${formatSigned(stage.gain, 1)} dB behind the converter: it can neither undo clipping there nor improve the signal-to-noise ratio.`,
      action,
      fixes: () =>
        canRest ? [{ action, changes: [{ strip: view.strip.id, stage: stage.id, setting: 'gain', to: db(0) }] }] : [],
    },
  ]
})

/** Channels that an optical 8-channel link carries at a rate: half at double the rate. */
const opticalChannels = (sampleRate: number): number => (sampleRate > 96_000 ? 2 : sampleRate > 48_000 ? 4 : 8)

/** A second unit behind a digital connection: its clock, its channel number, and what an optical link carries at this rate. */
export const digitalLink = perStage((view, stage, i) => {
  if (!isDigitalInput(stage)) return NOTHING
  const { gear, input } = stage
  const number = gear.inputs.findIndex((each) => each.id === input.id) + 1
  const clock: Draft = {
    code: 'word-clock',
    severity: 'note',
    stage: stage.id,
    joint: true,
    message: `The recorder counts this as input ${number} of “${gear.name}”. Two units, one clock: one unit gives the clock, the other follows.`,
    action: 'Set the clock source of the following unit to this link, and check its lock light before every take.',
  }
  return isOptical(stage, view.stages[i - 1]) ? [clock, ...capacity(view, stage)] : [clock]
})

const isOptical = ({ input }: ResolvedDigitalInput, before: ResolvedStage | undefined) =>
  isLink(before) ? before.gear.medium === 'optical' : input.plug?.connector === 'optical'

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth'] as const

/** Whether the channel exists at this rate: only an optical link has fewer at higher ones. */
function capacity(view: StripView, { id, gear, input }: ResolvedDigitalInput): Draft[] {
  const place = gear.inputs.filter((each) => each.type === 'digital').findIndex((each) => each.id === input.id) + 1
  const carried = opticalChannels(view.session.system.sampleRate)
  if (place <= carried) return []
  return [
    {
      code: 'link-capacity',
      severity: 'stop',
      stage: id,
      joint: true,
      message: `At ${formatDecimal(view.session.system.sampleRate / 1000, 1)} kHz an optical link carries ${carried} channels; this is its ${ORDINALS[place - 1] ?? `channel ${place}`}.`,
      action: `Use one of its first ${carried} channels, or a lower sample rate.`,
    },
  ]
}
