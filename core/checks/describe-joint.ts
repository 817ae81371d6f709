import { inputImpedance, outputImpedance } from '../chain/impedance'
import { isSoundSource } from '../gear'
import type { Finding } from './finding'
import { formatDecimal, formatShort, capital } from '../units'
import { connectorWords, fits } from './joints'
import { inPlug, outPlug, unbalancedGain } from '../chain/joint'
import { chainTraits } from '../gear/chains'
import { inputClass, outputClasses } from '../chain/level-class'
import { loadingGain } from '../gear/loading'
import type { PhantomUse } from '../chain/phantom'
import type { ResolvedStage } from '../gear/stage'
import type { LevelClass } from '../gear/chain-traits'

/** What there is to know of the joint between two neighbours. */
export interface Joint {
  before: string
  stage: string
  /** The gravest of what is to be seen to there; `null` where nothing is. */
  severity: Finding['severity'] | null
  /** What is so, in words. */
  facts: string[]
  /** What is to be seen to, each with what to do. */
  findings: Finding[]
}

const CLASS: Record<LevelClass, string> = {
  mic: 'microphone level',
  instrument: 'instrument level',
  line: 'line level',
}

/** The joints of a strip, from its stages, its findings and the session's phantom power. */
export function describeJoints(
  stages: readonly ResolvedStage[],
  findings: readonly Finding[],
  phantom: readonly PhantomUse[],
): Joint[] {
  const classes = outputClasses(stages)
  return stages.slice(1).map((to, i) => {
    const from = stages[i] as ResolvedStage
    const own = findings.filter((each) => each.joint && each.stage === to.id)
    return {
      before: from.id,
      stage: to.id,
      severity:
        (['stop', 'caution', 'note'] as const).find((severity) => own.some((each) => each.severity === severity)) ??
        null,
      facts: [
        levelFact(from, to, classes[i] ?? null),
        loadingFact(from, to, stages[i - 1]),
        plugFact(from, to),
        phantomFact(from, to, phantom),
        powerFact(from, to),
      ].filter((fact) => fact !== null),
      findings: own,
    }
  })
}

function levelFact(from: ResolvedStage, to: ResolvedStage, gives: LevelClass | null): string | null {
  if (isSoundSource(from)) return 'Sound, through the air.'
  if (gives === null) return 'Numbers, not volts.'
  const takes = inputClass(to)
  return takes === null ? `${capital(CLASS[gives])}.` : `${capital(CLASS[gives])} into an input for ${CLASS[takes]}.`
}

/** As one says it: 150 Ω, 2.4 kΩ, 1 MΩ. */
function impedance(value: number): string {
  if (value >= 1e6) return `${formatShort(value / 1e6, 2)} MΩ`
  return value >= 1e3 ? `${formatShort(value / 1e3, 2)} kΩ` : `${formatShort(value, 1)} Ω`
}

function loadingFact(from: ResolvedStage, to: ResolvedStage, before: ResolvedStage | undefined): string | null {
  const [source, load] = [outputImpedance(from, before), inputImpedance(to)]
  if (!source || load === undefined) return null
  return `${impedance(source)} into ${impedance(load)}, 1 : ${formatShort(load / source, load / source < 100 ? 1 : 0)}; the connection loses ${formatDecimal(-loadingGain(source, load), 2)} dB.`
}

function plugFact(from: ResolvedStage, to: ResolvedStage): string | null {
  const [out, into] = [outPlug(from), inPlug(to)]
  if (!out?.connector || !into?.connector) return null
  const loss = unbalancedGain(from, to)
  return `${connectorWords[out.connector]} to ${connectorWords[into.connector]}${fits(from, to) ? '' : ', which do not fit'}${loss === 0 ? '' : `; into an unbalanced input, ${formatDecimal(-loss, 2)} dB less`}.`
}

function phantomFact(from: ResolvedStage, to: ResolvedStage, phantom: readonly PhantomUse[]): string | null {
  const use = phantom.find((each) => each.user.id === from.id)
  if (!use) return null
  const minds = { needed: 'needs 48 V', harmless: 'tolerates 48 V', harmful: 'can be harmed by 48 V' }[use.attitude]
  if (use.blocked) return `“${from.gear.name}” ${minds}; this cable passes none.`
  if (!use.supply) return `“${from.gear.name}” ${minds}; “${to.gear.name}” passes none on.`
  const supplier = use.supply.stage.gear.name
  return `“${from.gear.name}” ${minds}; “${supplier}” ${use.supply.can ? `supplies it, and it is ${use.supply.on ? 'on' : 'off'}` : 'cannot supply it'}. Switch with the outputs muted, and wait before plugging.`
}

/** Boxes with a mains or battery switch are switched on from the source towards the loudspeakers. */
function powerFact(from: ResolvedStage, to: ResolvedStage): string | null {
  if (!chainTraits(from).powered(from) || !chainTraits(to).powered(to) || from.gear.id === to.gear.id) return null
  return `Power: “${from.gear.name}” on before “${to.gear.name}”, amplifiers and loudspeakers last; off in the reverse order.`
}
