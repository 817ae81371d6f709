import type { Draft, Mend } from '../../session'
import type { Ohms } from '../../units'
import { formatDecimal, formatShort, hz } from '../../units'
import {
  USUAL_CABLE,
  USUAL_CAPACITANCE,
  cableCorner,
  coilLoading,
  coilResonance,
  inputImpedance,
  loadingGain,
  outputImpedance,
} from '../loading'
import { inputClass } from '../level-class'
import { diBoxOf } from '../remedies'
import type { Resolved, ResolvedStage } from '../resolve'
import { toPort } from './to-port'
import type { StripView } from './view'
import { NOTHING, perStage } from './view'

/** Least ratio of load to source impedance before it is worth a word; 1:10 is the bridging rule (common practice). */
const LEAST_RATIO = 5

/** Below this a passive pickup has lost its voice (common practice, no source). */
const LEAST_PICKUP_RATIO = 1.5

/** Treble, where a coil's impedance is felt, and the loss from which on it sounds dull (common practice, no source). */
const TREBLE = hz(5000)
const DULL = 6

/** Taken for a coil that states no inductance: the middle of 2 to 5 H (common practice, no source). */
const USUAL_INDUCTANCE = 4
/** Resistances of magnetic pickups (common practice, no source): outside them nothing is assumed of a coil. */
const COIL = { least: 1000, most: 50_000 }

export const loading = perStage((view, stage, i): readonly Draft[] => {
  const next = view.stages[i + 1]
  const [source, load] = [outputImpedance(stage, view.stages[i - 1]), inputImpedance(next)]
  if (!next || !source || load === undefined) return NOTHING
  if (stage.kind === 'electric-source' && stage.gear.output === 'passive-pickup') {
    return pickupLoading(view, stage, next, source, load, i)
  }
  if (load / source >= LEAST_RATIO) return NOTHING
  const loss = -loadingGain(source, load)
  return [
    {
      code: 'loading',
      severity: 'caution',
      stage: next.id,
      joint: true,
      message: `The input loads "${stage.gear.name}" with only ${formatDecimal(load / source, 1)} times its impedance: ${formatDecimal(loss, 1)} dB are lost, and its sound may change.`,
      action: `Use an input of at least ${formatDecimal(10 * source, 0)} Ω (ten times, common practice), or put a preamp with a high input impedance between.`,
    },
  ]
})

/** A pickup wants about 1 MΩ, whatever ten times its resistance would be: its coil's impedance rises with the frequency. */
function pickupLoading(
  view: StripView,
  stage: Resolved<'electric-source'>,
  next: ResolvedStage,
  source: Ohms,
  load: Ohms,
  i: number,
): readonly Draft[] {
  // Said already, as the wrong input.
  if (inputClass(next) === 'mic') return NOTHING
  const inductance = inductanceOf(stage, source)
  const loss = -loadingGain(source, load)
  const treble = inductance === null ? loss : -coilLoading(source, inductance, load, TREBLE)
  const ratio = load / source
  const grave = ratio < LEAST_PICKUP_RATIO || treble >= DULL
  if (!grave && ratio >= LEAST_RATIO) return NOTHING
  const coil =
    inductance === null
      ? ''
      : ` and ${formatDecimal(treble, 1)} dB at 5 kHz by its coil of ${formatShort(inductance)} H${stage.specs.inductance === undefined ? ' (assumed)' : ''}`
  return [
    {
      code: 'loading',
      severity: grave ? 'stop' : 'caution',
      stage: next.id,
      joint: true,
      message: `"${stage.gear.name}" meets only ${formatDecimal(ratio, 2)} times its resistance: ${formatDecimal(loss, 1)} dB are lost${coil}, ${cableWords(source, inductance, next)}. It sounds thin and weak.`,
      action: 'Use an instrument input of about 1 MΩ, or a DI box.',
      mends: () => [...toPort(view, next, 'instrument', 'Use its instrument input {port}.'), ...diBox(view, next, i)],
    },
  ]
}

function inductanceOf({ specs }: Resolved<'electric-source'>, source: Ohms): number | null {
  if (specs.inductance !== undefined) return specs.inductance
  return source >= COIL.least && source <= COIL.most ? USUAL_INDUCTANCE : null
}

/** What the cable does with it: a low-pass with the resistance, a resonance with the coil. */
function cableWords(source: Ohms, inductance: number | null, { settings }: ResolvedStage): string {
  const [length, each] = [settings.cable ?? USUAL_CABLE, settings.capacitance ?? USUAL_CAPACITANCE]
  const corner = formatDecimal(cableCorner(source, length * each) / 1000, 2)
  const resonance =
    inductance === null || inductance === 0
      ? ''
      : `; coil and cable resonate at ${formatDecimal(coilResonance(inductance, length * each) / 1000, 2)} kHz`
  return `and a cable of ${formatDecimal(length, 1)} m (${formatDecimal(each, 0)} pF/m) cuts its highs from ${corner} kHz${resonance}`
}

/** Into a line input a DI box gives microphone level: only where that is wanted. */
const diBox = (view: StripView, next: ResolvedStage, i: number): Mend[] =>
  inputClass(next) === 'line'
    ? []
    : [
        {
          action: 'Put a DI box between.',
          changes: [{ do: 'insert', strip: view.strip.id, index: i + 1, gear: diBoxOf(view.session) }],
        },
      ]
