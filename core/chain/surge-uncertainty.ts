import type { FieldTable, Measurement } from '../session'
import { spreadOf, standardUncertainty } from '../session'
import type { ResolvedStage } from './resolve'

/**
 * Half-widths of what is printed or assumed, dB (common practice, no source): a performer's level, crest factor and
 * surge, a distance by eye (10 %), a printed sensitivity, full scale and losses, gains by how they are set.
 */
const HALF_WIDTH = {
  level: 5,
  crest: 2,
  surge: 3,
  distance: 20 * Math.log10(1.1),
  sensitivity: 2,
  fullScale: 0.5,
  loss: 0.5,
  gainByStep: 0.3,
  gainByMarks: 0.5,
  gainByKnob: 2,
} as const

const fromHalfWidth = (half: number) => half / Math.sqrt(3)

/**
 * Standard uncertainty of the peak with the surge at the recorder, dB: the root of the sum of squares of what every
 * input contributes (GUM, JCGM 100), each moving the peak dB for dB.
 * Example: worked example 1: 3.79 dB.
 */
export function surgeUncertainty(stages: readonly ResolvedStage[]): number {
  const all = stages.flatMap(uncertaintiesOf)
  return Math.sqrt(all.reduce((sum, each) => sum + each * each, 0))
}

function uncertaintiesOf(stage: ResolvedStage): number[] {
  switch (stage.kind) {
    case 'sound-source':
      return [...performer(stage.gear), fromHalfWidth(HALF_WIDTH.distance)]
    case 'electric-source':
    case 'playback':
      return performer(stage.gear)
    case 'microphone':
      return [known(stage.gear, 'sensitivity', HALF_WIDTH.sensitivity)]
    case 'pad':
      return [known(stage.gear, 'loss', HALF_WIDTH.loss)]
    case 'di-box':
      return [known(stage.gear, 'ratio', HALF_WIDTH.loss)]
    case 'booster':
      return [known(stage.gear, 'gain', HALF_WIDTH.loss)]
    case 'link':
      return stage.gear.medium === 'wireless' ? [known(stage.gear, 'gain', HALF_WIDTH.loss)] : []
    case 'interface':
      return [known(stage.input, 'fullScale', HALF_WIDTH.fullScale), fromHalfWidth(gainWidth(stage))]
    case 'preamp':
    case 'desk-channel':
      return [fromHalfWidth(gainWidth(stage))]
    case 'processor':
      return stage.gear.domain === 'analogue' ? [fromHalfWidth(HALF_WIDTH.loss)] : []
    case 'fader':
      return stage.gear.place === 'desk' ? [fromHalfWidth(HALF_WIDTH.loss)] : []
    case 'loudspeaker':
      return [known(stage.gear, 'sensitivity', HALF_WIDTH.sensitivity)]
    case 'amplifier':
      return [known(stage.gear, 'gain', HALF_WIDTH.loss)]
    case 'interface-output':
      return [known(stage.output, 'fullScale', HALF_WIDTH.fullScale)]
    case 'digital-input':
      return []
  }
}

const performer = (source: { measured?: object | undefined }) => [
  known(source, 'level', HALF_WIDTH.level),
  known(source, 'crest', HALF_WIDTH.crest),
  known(source, 'surge', HALF_WIDTH.surge),
]

/** A measured value is known by its spread, a printed or assumed one by what is usual. */
function known(owner: { measured?: object | undefined }, key: keyof FieldTable & string, half: number): number {
  const measurement = (owner.measured as Record<string, Measurement | undefined> | undefined)?.[key]
  const spread = measurement && spreadOf(measurement)
  return spread ? standardUncertainty(spread) : measurement ? 0 : fromHalfWidth(half)
}

function gainWidth(stage: Extract<ResolvedStage, { kind: 'interface' | 'preamp' | 'desk-channel' }>): number {
  const knob = stage.kind === 'interface' ? stage.input.knob : stage.gear.knob
  if (stage.specs.gainMax === stage.specs.gainMin) return 0
  if (stage.specs.gainStep > 0) return HALF_WIDTH.gainByStep
  return knob ? HALF_WIDTH.gainByMarks : HALF_WIDTH.gainByKnob
}
