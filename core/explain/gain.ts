import { turnsGain } from '../chain/compile/di-box'
import { directivity, ONE_PASCAL, sensitivityGain } from '../chain/compile/microphone'
import { jointGain } from '../chain/joint'
import { inputImpedance, loadingGain } from '../chain/loading'
import type { FormulaId } from '../formula'
import type { MillivoltsPerPascal } from '../units'
import type { Context } from './context'
import type { Part } from './explanation'

/** What a stage does to a level, in parts that add up: its own, and the joint before it. */
export function gainParts(context: Context, i: number): { formula: FormulaId; parts: Part[]; remarks: string[] } {
  const own = ownGain(context, i)
  const [from, to] = [context.stages[i - 1], context.stage(i)]
  const joint = from ? jointGain(from, to, context.stages[i - 2]) : 0
  const loss: Part[] =
    joint === 0 ? [] : [{ name: 'Loss in the connection before it', value: joint, unit: 'dB', adds: joint, u: null }]
  return { formula: own.formula, parts: [...own.parts, ...loss], remarks: own.remarks ?? [] }
}

interface Own {
  formula: FormulaId
  parts: Part[]
  remarks?: string[]
}

function ownGain(context: Context, i: number): Own {
  const stage = context.stage(i)
  const gear = `gear.${stage.gear.id}`
  const setting = (name: 'gain' | 'fader', value: number, label: string, adds = value): Part =>
    context.input(`strips.${context.strip.id}.${stage.id}.${name}`, label, value, 'dB', adds)
  const spec = (name: string, value: number, unit: string, adds: number, label: string): Part =>
    context.input(`${gear}.${name}`, label, value, unit, adds)
  switch (stage.kind) {
    case 'microphone': {
      const { impedance } = stage.specs
      const axis = directivity(stage)?.programme ?? 0
      const turned: Part[] = axis === 0 ? [] : [{ name: 'Off axis', value: axis, unit: 'dB', adds: axis, u: null }]
      const { digitalSensitivity, gainMin = 0 } = stage.specs
      if (digitalSensitivity !== undefined)
        return {
          formula: 'wire-microphone-digital',
          parts: [
            spec(
              'digitalSensitivity',
              digitalSensitivity,
              'dBFS',
              digitalSensitivity - ONE_PASCAL,
              'Level at 94 dB SPL',
            ),
            ...(stage.settings.gain === undefined ? [] : [setting('gain', stage.gain, 'Gain', stage.gain - gainMin)]),
            ...turned,
          ],
        }
      // The session was read: without a converter of its own it has a sensitivity.
      const sensitivity = stage.specs.sensitivity as MillivoltsPerPascal
      const load = inputImpedance(context.stages[i + 1])
      return {
        formula: 'wire-microphone-open-circuit',
        parts: [
          spec('sensitivity', sensitivity, 'mV/Pa', sensitivityGain(sensitivity), 'Sensitivity'),
          ...(load === undefined || impedance === undefined
            ? []
            : [
                spec('impedance', impedance, 'Ω', loadingGain(impedance, load), 'Its impedance into the next input'),
                { name: 'That input', value: load, unit: 'Ω', adds: 0, u: null },
              ]),
          ...turned,
        ],
      }
    }
    case 'interface': {
      const { fullScale, gainMin, pad } = stage.specs
      const at = `${gear}.inputs.${stage.input.id}`
      return {
        formula: 'planner-0-dbfs-as-set',
        parts: [
          setting('gain', stage.gain, 'Gain', stage.gain - gainMin),
          context.input(`${at}.fullScale`, 'Its maximum input level is 0 dBFS', fullScale, 'dBu', -fullScale),
          ...(stage.pad ? [context.input(`${at}.pad`, 'Pad', pad, 'dB', -pad)] : []),
        ],
        remarks: gainMin === 0 ? [] : [`The gain counts from its lowest, ${gainMin} dB.`],
      }
    }
    case 'preamp':
    case 'desk-channel': {
      const fader = stage.kind === 'desk-channel' && stage.settings.tap !== 'pre' ? (stage.settings.fader ?? 0) : null
      return {
        formula: stage.kind === 'preamp' ? 'stages-preamp' : 'stages-desk-channel',
        parts: [
          setting('gain', stage.gain, 'Gain'),
          ...(stage.settings.pad ? [spec('pad', stage.specs.pad, 'dB', -stage.specs.pad, 'Pad')] : []),
          ...(fader === null ? [] : [setting('fader', fader, 'Fader')]),
        ],
      }
    }
    case 'processor':
      return { formula: 'stages-processor', parts: [setting('gain', stage.gain, 'Output gain')] }
    case 'fader':
      return { formula: 'stages-fader', parts: [setting('gain', stage.gain, 'Fader')] }
    case 'booster':
      return {
        formula: 'stages-inline-preamp',
        parts: [spec('gain', stage.specs.gain, 'dB', stage.specs.gain, 'Gain')],
      }
    case 'pad':
      return { formula: 'wire-pad', parts: [spec('loss', stage.specs.loss, 'dB', -stage.specs.loss, 'Loss')] }
    case 'di-box': {
      const { ratio } = stage.specs
      return {
        formula: 'wire-di-box-turns-ratio-n',
        parts: [spec('ratio', ratio, ': 1', turnsGain(ratio), 'Turns ratio')],
      }
    }
    case 'link':
      return {
        formula: 'stages-wireless-link',
        parts: [spec('gain', stage.specs.gain, 'dB', stage.specs.gain, 'Gain')],
      }
    case 'amplifier':
      return {
        formula: 'busses-amplifier',
        parts: [
          spec('gain', stage.specs.gain, 'dB', stage.specs.gain, 'Voltage gain'),
          setting('gain', stage.gain, 'Knob'),
        ],
      }
    case 'loudspeaker': {
      const { sensitivity, count } = stage.specs
      const distance = stage.settings.distance ?? 1
      const far = -20 * Math.log10(distance)
      return {
        formula: 'busses-loudspeaker',
        parts: [
          spec('sensitivity', sensitivity, 'dB SPL', sensitivity, 'Sensitivity'),
          setting('gain', stage.gain, 'Knob'),
          context.input(`strips.${context.strip.id}.${stage.id}.distance`, 'Distance', distance, 'm', far),
          ...(count > 1
            ? [{ name: 'How many alike', value: count, unit: 'times', adds: 10 * Math.log10(count), u: null }]
            : []),
        ],
      }
    }
    case 'interface-output':
      return {
        formula: 'recordings-full-scale',
        parts: [
          context.input(
            `${gear}.outputs.${stage.output.id}.fullScale`,
            '0 dBFS gives',
            stage.specs.fullScale,
            'dBu',
            stage.specs.fullScale,
          ),
        ],
      }
    case 'digital-input':
      return { formula: 'stages-digital-link-digital-input', parts: [] }
    // A source has a level, and no gain.
    case 'sound-source':
    case 'electric-source':
    case 'playback':
      return { formula: 'levels-dbfs', parts: [] }
  }
}
