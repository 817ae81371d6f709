import { isInterfaceOutput } from '../gear'
import type { NoiseName } from '../gear/two-port'
import { einWeighted } from '../gear/equivalent-input-noise'
import { noiseWords } from '../evaluation/verdict'
import type { FormulaId } from '../formula'
import { roomInForce } from '../model'
import { dbu, capital } from '../units'
import type { Context } from './context'
import type { Part } from './explanation'
import type { Made } from './level'

/** The noise at a stage: every noise that has arrived there. */
export function noiseParts(context: Context, i: number): Made {
  const parts = context
    .noises(i)
    .map(({ strip, stage, name, level, share }): Part => ({
      name: capital(noiseWords[name]),
      value: level,
      unit: `${context.unit(i)}(A)`,
      adds: null,
      u: null,
      share,
      figure: { strip, stage, figure: `noise:${name}` },
    }))
  return { formula: 'levels-unrelated-sum', parts, remarks: ['Shares are of the noise’s power.'] }
}

const FORMULAS: Record<NoiseName, FormulaId> = {
  'room': 'busses-noise-of-a-sum',
  'self-noise': 'wire-microphone-open-circuit',
  'thermal': 'noise-thermal',
  'source': 'stages-electric-source',
  'booster': 'noise-ein-excess',
  'preamp': 'noise-ein-excess',
  'output-stage': 'stages-preamp',
  'link': 'stages-wireless-link',
  'converter': 'noise-converter',
  'word-length': 'noise-word-length-tpdf',
}

/** One noise where it arises: its level there, and the figures that it follows from. */
export function ownNoise(context: Context, i: number, name: NoiseName): { made: Made; level: number } | null {
  const found = context.noises(i).find((each) => each.name === name && each.stage === context.stage(i).id)
  if (!found) return null
  return { level: found.level, made: { formula: FORMULAS[name], parts: sourcesOf(context, i, name), remarks: [] } }
}

function sourcesOf(context: Context, i: number, name: NoiseName): Part[] {
  const stage = context.stage(i)
  const specs = ('specs' in stage ? stage.specs : {}) as Record<string, number | undefined>
  const at = context.figuresOf(i)
  const spec = (key: string, label: string, unit: string): Part[] => {
    const value = specs[key]
    return value === undefined ? [] : [context.input(`${at}.${key}`, label, value, unit, null)]
  }
  switch (name) {
    case 'room':
      return [context.input('room.ambient', 'Room noise', roomInForce(context.session.room).ambient ?? 0, 'dBA', null)]
    case 'self-noise':
      return [...spec('selfNoise', 'Self-noise', 'dBA'), ...spec('sensitivity', 'Sensitivity', 'mV/Pa')]
    case 'thermal':
      return [...spec('impedance', 'Impedance', 'Ω'), ...spec('outputImpedance', 'Output impedance', 'Ω')]
    case 'preamp':
    case 'booster': {
      const { ein } = specs
      if (ein === undefined) return []
      const weighting = (specs as { einWeighting?: 'A' | 'Z' }).einWeighting ?? 'A'
      return [
        context.input(`${at}.ein`, 'EIN', ein, weighting === 'Z' ? 'dBu' : 'dBu(A)', null),
        ...(weighting === 'Z'
          ? [{ name: 'A-weighted', value: einWeighted(dbu(ein), weighting), unit: 'dBu(A)', adds: null, u: null }]
          : []),
        context.input(
          `strips.${context.strip.id}.${stage.id}.gain`,
          'Gain',
          'gain' in stage ? stage.gain : 0,
          'dB',
          null,
        ),
        ...spec('fullScale', 'Maximum input level', 'dBu'),
      ]
    }
    case 'converter':
      return [
        ...spec('dynamicRange', 'Dynamic range', 'dB'),
        ...(isInterfaceOutput(stage) ? spec('fullScale', 'Maximum output level', 'dBu') : []),
      ]
    case 'link':
      return [...spec('maxOutput', 'Maximum output level', 'dBu'), ...spec('dynamicRange', 'Dynamic range', 'dB')]
    case 'output-stage':
      return spec('outputNoise', 'Output noise', 'dBu(A)')
    case 'source':
      return spec('noise', 'Own noise', 'dBu(A)')
    case 'word-length':
      return [{ name: 'Bit depth', value: context.session.system.bitDepth, unit: 'bits', adds: null, u: null }]
  }
}
