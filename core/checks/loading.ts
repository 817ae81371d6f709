import { inputImpedance, outputImpedance } from '../chain/impedance'
import { circuitOf, inductanceOf } from '../gear/electric-source/circuit'
import { isElectricSource } from '../gear'
import type { Draft, Fix } from './finding'
import type { Ohms } from '../units'
import { formatDecimal, formatShort } from '../units'
import { loadingGain } from '../gear/loading'
import type { PickupCircuit } from '../gear/electric-source/pickup'
import { TREBLE, coilResonance, pickupResponse, trebleLoss } from '../gear/electric-source/pickup'
import { inputClass } from '../chain/level-class'
import { diBoxOf } from './remedies'
import type { Resolved, ResolvedStage } from '../gear/stage'
import { toPort } from './to-port'
import type { StripView } from './view'
import { NOTHING, perStage } from './view'

/** Least ratio of load to source impedance before it is worth a word; 1:10 is the bridging rule (common practice). */
const LEAST_RATIO = 5

/** Below this a passive pickup has lost its voice (common practice, no source). */
const LEAST_PICKUP_RATIO = 1.5

/** Treble lost at 5 kHz from which on it sounds dull, dB (common practice, no source). */
const DULL = 6

export const loading = perStage((view, stage, i): readonly Draft[] => {
  const next = view.stages[i + 1]
  const [source, load] = [outputImpedance(stage, view.stages[i - 1]), inputImpedance(next)]
  if (!next || !source || load === undefined) return NOTHING
  if (isElectricSource(stage) && stage.gear.output === 'passive-pickup') {
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
      message: `The input loads “${stage.gear.name}” with only ${formatDecimal(load / source, 1)} times its impedance: ${formatDecimal(loss, 1)} dB are lost, and its sound may change.`,
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
  const inductance = inductanceOf(stage)
  const circuit = circuitOf(stage, next, load, inductance ?? 0)
  const loss = -loadingGain(source, load)
  // By the input alone: what the lead takes is said of the lead.
  const treble = circuit && inductance !== null ? -pickupResponse({ ...circuit, picofarads: 0 }, TREBLE) : loss
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
      message: `“${stage.gear.name}” meets only ${formatDecimal(ratio, 2)} times its resistance: ${formatDecimal(loss, 1)} dB are lost${coil}. It sounds thin and weak.`,
      action: 'Use an instrument input of about 1 MΩ, or a DI box.',
      fixes: () => [...toPort(view, next, 'instrument', 'Use its instrument input {port}.'), ...diBox(view, next, i)],
    },
  ]
}

/** A lead of a stated length behind a pickup takes treble together with its coil, whatever the input. */
export const leadTreble = perStage((view, stage, i): readonly Draft[] => {
  const next = view.stages[i + 1]
  if (!isElectricSource(stage) || next?.settings.cable === undefined) return NOTHING
  const circuit = circuitOf(stage, next, inputImpedance(next), inductanceOf(stage) ?? 0)
  const loss = circuit ? trebleLoss(circuit) - trebleLoss({ ...circuit, picofarads: 0 }) : 0
  if (!circuit || loss < DULL) return NOTHING
  const each = circuit.picofarads / next.settings.cable
  const longest = longestLead(circuit, each)
  const resonance =
    circuit.inductance > 0
      ? ` Coil and cable resonate at ${formatDecimal(coilResonance(circuit.inductance, circuit.picofarads) / 1000, 2)} kHz.`
      : ''
  const action =
    longest > 0
      ? `Use a cable of at most ${formatShort(longest, 1)} m, or a DI box near the instrument and a balanced cable behind it.`
      : 'Use a DI box near the instrument and a balanced cable behind it.'
  return [
    {
      code: 'treble-in-lead',
      severity: 'caution',
      stage: next.id,
      joint: true,
      message: `The cable of ${formatShort(next.settings.cable, 1)} m takes ${formatDecimal(loss, 1)} dB at 5 kHz from “${stage.gear.name}”.${resonance}`,
      action,
      fixes: () =>
        longest > 0
          ? [{ action, changes: [{ strip: view.strip.id, stage: next.id, setting: 'cable', to: longest }] }]
          : [],
    },
  ]
})

/** The longest lead that does not sound dull, rounded down to half a metre. */
function longestLead(circuit: PickupCircuit, each: number): number {
  const bare = trebleLoss({ ...circuit, picofarads: 0 })
  const dulls = (metres: number) => trebleLoss({ ...circuit, picofarads: metres * each }) - bare >= DULL
  let longest = 0
  for (let metres = 0.5; metres * each < circuit.picofarads && !dulls(metres); metres += 0.5) longest = metres
  return longest
}

/** Into a line input a DI box gives microphone level: only where that is wanted. */
const diBox = (view: StripView, next: ResolvedStage, i: number): Fix[] =>
  inputClass(next) === 'line'
    ? []
    : [
        {
          action: 'Put a DI box between.',
          changes: [{ do: 'insert', strip: view.strip.id, index: i + 1, gear: diBoxOf(view.session) }],
        },
      ]
