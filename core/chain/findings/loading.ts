import type { Finding } from '../../session'
import type { Ohms } from '../../units'
import { formatDecimal } from '../../units'
import { USUAL_CAPACITANCE, USUAL_LEAD, cableCorner, inputImpedance, loadingGain, outputImpedance } from '../loading'
import { freePort } from '../remedies'
import type { ResolvedStage } from '../resolve'
import type { StripView } from './view'
import { NOTHING, perStage } from './view'

/** Least ratio of load to source impedance before it is worth a word; 1:10 is the bridging rule (common practice). */
const LEAST_RATIO = 5

/** Below this a passive pickup has lost its voice (common practice, no source). */
const LEAST_PICKUP_RATIO = 1.5

export const loading = perStage((view, stage, i): readonly Finding[] => {
  const next = view.stages[i + 1]
  const [source, load] = [outputImpedance(stage), inputImpedance(next)]
  if (!next || !source || load === undefined || load / source >= LEAST_RATIO) return NOTHING
  const ratio = load / source
  const loss = -loadingGain(source, load)
  const passive = stage.kind === 'electric-source' && stage.gear.output === 'passive-pickup'
  if (passive && ratio < LEAST_PICKUP_RATIO) {
    return [
      {
        code: 'loading',
        severity: 'stop',
        stage: next.id,
        joint: true,
        message: `"${stage.gear.name}" meets only ${formatDecimal(ratio, 2)} times its impedance: ${formatDecimal(loss, 1)} dB are lost, ${leadWords(source, next)}. It sounds thin and weak.`,
        action: `Use an instrument input of about 1 MΩ, or a DI box.`,
        ...instrumentPort(view, next),
      },
    ]
  }
  return [
    {
      code: 'loading',
      severity: 'caution',
      stage: next.id,
      joint: true,
      message: `The input loads "${stage.gear.name}" with only ${formatDecimal(ratio, 1)} times its impedance: ${formatDecimal(loss, 1)} dB are lost, and its sound may change.`,
      action: `Use an input of at least ${formatDecimal(10 * source, 0)} Ω, or put a booster or preamp with a high input impedance between.`,
    },
  ]
})

function leadWords(source: Ohms, { settings }: ResolvedStage): string {
  const [metres, each] = [settings.cable ?? USUAL_LEAD, settings.capacitance ?? USUAL_CAPACITANCE]
  const corner = cableCorner(source, metres * each)
  return `and a lead of ${formatDecimal(metres, 1)} m (${formatDecimal(each, 0)} pF/m) cuts its highs from ${formatDecimal(corner / 1000, 2)} kHz`
}

/** The same unit's instrument input, where one is free. */
function instrumentPort(view: StripView, stage: ResolvedStage): Pick<Finding, 'changes'> {
  if (stage.kind !== 'interface') return {}
  const port = freePort(view.session, stage.gear.id, 'instrument')
  return port ? { changes: [{ do: 'port', strip: view.strip.id, stage: stage.id, port }] } : {}
}
