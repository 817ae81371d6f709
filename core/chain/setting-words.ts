import type { Block } from '../gear'
import { isProcessor, isSoundSource } from '../gear'
import { chainTraits } from '../gear/chains'
import { formatShort } from '../units'
import type { GainControl } from './gain-control'
import { gainControls } from './gain-control'
import { gainToPosition, positionInWords } from './knob'
import type { ResolvedStage } from '../gear/stage'

/** A gain as a hand sets it: "39 dB, knob about half past one" where the marks of its knob are known. */
export function gainInWords({ value, knob }: Pick<GainControl, 'value' | 'knob'>): string {
  const position = knob && gainToPosition(knob, value)
  return `${formatShort(value, 1)} dB${position ? ` (knob about ${positionInWords(position)})` : ''}`
}

/** One setting of a stage: its name and what it stands at, in words. */
export interface SettingWords {
  readonly setting: string
  readonly name: string
  readonly words: string
}

/** All that a hand sets at a stage, gains first, a processor’s sections last; also what stands at zero or is out. */
export function settingWords(stage: ResolvedStage): SettingWords[] {
  return [...plainSettings(stage), ...sectionSettings(stage)]
}

function plainSettings(stage: ResolvedStage): SettingWords[] {
  if (isSoundSource(stage))
    return [{ setting: 'distance', name: 'Distance', words: `${formatShort(stage.distance)} m from the capsule` }]
  const { gain, fader, phantom, pad, lowCut, tap, angle, cable, distance, toMicrophone } = stage.settings
  const knob = gainControls(stage).find((each) => each.setting === 'gain')?.knob
  const told: [string, string, string | null][] = [
    [
      'gain',
      chainTraits(stage).gainIsFader ? 'Fader' : 'Gain',
      gain === undefined ? null : gainInWords({ value: gain, knob }),
    ],
    ['fader', 'Fader', fader === undefined ? null : `${formatShort(fader, 1)} dB`],
    ['phantom', '48 V', phantom === undefined ? null : phantom ? 'on' : 'off'],
    ['pad', 'Pad', pad === undefined ? null : pad ? 'in' : 'out'],
    ['lowCut', 'Low cut', lowCut === undefined ? null : lowCut ? 'in' : 'out'],
    ['tap', 'Taken', tap === undefined ? null : `${tap} fader`],
    ['angle', 'Off axis', angle === undefined ? null : `${formatShort(angle)}°`],
    ['distance', 'Distance', distance === undefined ? null : `${formatShort(distance)} m to the listener`],
    [
      'toMicrophone',
      'To the microphones',
      toMicrophone === undefined ? null : `${formatShort(toMicrophone)} m to the nearest open microphone`,
    ],
    ['cable', 'Cable', cable === undefined ? null : `${formatShort(cable, 1)} m`],
  ]
  return told.flatMap(([setting, name, words]) => (words === null ? [] : [{ setting, name, words }]))
}

/** The controls of a processor’s sections: threshold, ratio, make-up, ceiling, each with its unit, and whether it is in. */
function sectionSettings(stage: ResolvedStage): SettingWords[] {
  if (!isProcessor(stage)) return []
  const unit = stage.gear.domain === 'digital' ? 'dBFS' : 'dBu'
  return stage.gear.blocks.flatMap((block, i) => {
    const name = sectionName(stage.gear.blocks, i)
    const told: [string, string][] = sectionValues(block, unit)
    return [
      { setting: `section-${i}`, name, words: block.on ? 'in' : 'out' },
      ...told.map(([control, words]) => ({ setting: `section-${i}-${control}`, name: `${name} ${control}`, words })),
    ]
  })
}

/** A section as it is called: by its own name, or by its type, counted where there are several of it. */
function sectionName(blocks: readonly Block[], i: number): string {
  const block = blocks[i] as Block
  const alike = blocks.filter(({ type }) => type === block.type)
  const type = block.type.charAt(0).toUpperCase() + block.type.slice(1)
  return block.name ?? (alike.length > 1 ? `${type} ${alike.indexOf(block) + 1}` : type)
}

function sectionValues(block: Block, unit: string): [string, string][] {
  const dB = (value: number) => `${formatShort(value, 1)} dB`
  const level = (value: number) => `${formatShort(value, 1)} ${unit}`
  switch (block.type) {
    case 'compressor':
      return [
        ['threshold', level(block.threshold)],
        ['ratio', `${formatShort(block.ratio, 1)} : 1`],
        ['make-up', dB(block.makeUp)],
      ]
    case 'expander':
      return [
        ['threshold', level(block.threshold)],
        ['ratio', `1 : ${formatShort(block.ratio, 1)}`],
        ...(block.range === undefined ? [] : [['range', dB(block.range)] as [string, string]]),
      ]
    case 'limiter':
      return [['ceiling', level(block.ceiling)]]
    case 'equaliser':
      return [['change of level', dB(block.change)]]
    case 'gain':
      return [['gain', dB(block.gain)]]
  }
}

/** Which socket of a box a stage is, where it has several. */
export const portOf = (stage: ResolvedStage): string | null => chainTraits(stage).port(stage)?.id ?? null

/** A stage by its box and, where that has several, its socket: "mic1 of Saltmarsh Four". */
export const stageName = (stage: ResolvedStage): string => {
  const port = portOf(stage)
  return port ? `${port} of ${stage.gear.name}` : stage.gear.name
}
