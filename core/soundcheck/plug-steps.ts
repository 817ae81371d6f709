import { isDigitalInput, isInterface, isMicrophone } from '../gear'
import { describeJoints } from '../checks/describe-joint'
import { CONFLICT_WAYS, phantomSwitches, phantomUses, usersText } from '../chain/phantom'
import type { PhantomSwitch } from '../chain/phantom'
import { stageName } from '../chain/setting-words'
import { chainTraits } from '../gear/chains'
import type { ResolvedStage } from '../gear/stage'
import { formatShort } from '../units'
import type { Sheet, SheetStrip } from './sheet'
import type { Instruction } from './step'
import { digest, instruction } from './step'

/** Whether a cable leads from one into the other. */
const isWired = (from: ResolvedStage, to: ResolvedStage): boolean =>
  [from, to].every((stage) => chainTraits(stage).isBox(stage))

/** Every cable, joint by joint from the source on, with what is so at the joint. */
export function plugSteps(sheet: Sheet): Instruction[] {
  const phantom = phantomUses(sheet.session)
  return sheet.strips.flatMap(({ strip, stages, evaluated }) => {
    const joints = describeJoints(stages, evaluated.findings, phantom)
    return stages.slice(1).flatMap((to, i) => {
      const from = stages[i] as ResolvedStage
      if (!isWired(from, to)) return []
      const cable = to.settings.cable
      const joint = joints[i]
      // What is said of 48 V has steps of its own.
      const facts = (joint?.facts ?? []).filter((fact) => !fact.includes('48 V'))
      const warnings = (joint?.findings ?? []).filter(({ severity }) => severity !== 'note')
      return [
        instruction({
          id: `${strip.id}.${to.id}.plug`,
          group: 'plugs',
          strip: strip.id,
          stage: to.id,
          title: `${stageName(from)} into ${stageName(to)}`,
          detail: [...(cable === undefined ? [] : [`Cable ${formatShort(cable, 1)} m.`]), ...facts].join(' ') || null,
          caution: () => warnings.map(({ message, action }) => `${message} ${action}`).join(' ') || null,
          holds: JSON.stringify([from.gear.id, to.gear.id, stageName(to), cable]),
        }),
      ]
    })
  })
}

/** What each microphone and input is switched to. */
export function typeSteps(sheet: Sheet): Instruction[] {
  return sheet.strips.flatMap(({ strip, stages }) =>
    stages.flatMap((stage) => {
      if (isMicrophone(stage))
        return [
          instruction({
            id: `${strip.id}.${stage.id}.switches`,
            group: 'types',
            strip: strip.id,
            stage: stage.id,
            title: `${stage.gear.name}: its own switches`,
            detail: `${stage.gear.pattern ? `Pattern ${stage.gear.pattern}, the` : 'The'} right side to the source; mute open, its own pad and filter out.`,
          }),
        ]
      const type = chainTraits(stage).inputWords(stage)
      if (type === null) return []
      const { pad, lowCut } = stage.settings
      const told = [
        ...(pad === undefined ? [] : [`pad ${pad ? 'in' : 'out'}`]),
        ...(lowCut === undefined ? [] : [`low cut ${lowCut ? 'in' : 'out'}`]),
      ]
      return [
        instruction({
          id: `${strip.id}.${stage.id}.type`,
          group: 'types',
          strip: strip.id,
          stage: stage.id,
          title: `${stageName(stage)}: ${type}${told.length > 0 ? `, ${told.join(', ')}` : ''}`,
        }),
      ]
    }),
  )
}

/** Seconds to wait after switching 48 V on, and off (common practice, no source). */
const WAIT = { on: 10, off: 30 } as const
const CARE = `Outputs muted and headphones off your ears; plug first, then switch. Wait ${WAIT.on} s after on, ${WAIT.off} s after off before anything is plugged.`

/** 48 V, switch by switch: what each should be, by who needs it and who must not get it, however it stands now. */
export function phantomSteps(sheet: Sheet): Instruction[] {
  const uses = phantomUses(sheet.session)
  return phantomSwitches(uses).map((each) => {
    const { stage, bank, needing, harmed, should } = each
    const name = bank === undefined ? stageName(stage) : `bank ${bank} of ${stage.gear.name}`
    return instruction({
      // Names of units and banks may hold anything that an id may not.
      id: `phantom.${digest(each.id)}`,
      group: 'phantom',
      title: phantomTitle(each, name),
      detail:
        [
          ...(needing.length > 0 ? [`${usersText(needing)} ${needing.length === 1 ? 'needs' : 'need'} it.`] : []),
          ...(harmed.length > 0 ? [`${usersText(harmed)} must not get it.`] : []),
          ...(should === 'conflict' ? [`${CONFLICT_WAYS}, then come back to this step.`] : []),
          ...(should === 'on' && !each.on ? ['It is off now.'] : []),
          ...(should === 'on'
            ? ['Some units lose this setting when switched off: check it after every power cycle.']
            : []),
        ].join(' ') || null,
      caution: should === 'on' || harmed.length > 0 ? CARE : null,
      holds: `${should} ${each.on}`,
    })
  })
}

function phantomTitle({ should, on }: PhantomSwitch, name: string): string {
  switch (should) {
    case 'conflict':
      return `Stop: keep 48 V of ${name} off, it would harm what is connected`
    case 'on':
      return `48 V of ${name}: on`
    case 'off':
      return on ? `Switch 48 V of ${name} off` : `Keep 48 V of ${name} off`
  }
}

/** The recorder’s channel of a strip, counted as the unit counts its inputs, from 1; `null` where it has none. */
export function recorderChannel({ stages }: Pick<SheetStrip, 'stages'>): number | null {
  const stage = stages.findLast((each) => isInterface(each) || isDigitalInput(each))
  if (!isInterface(stage) && !isDigitalInput(stage)) return null
  return stage.gear.inputs.findIndex(({ id }) => id === stage.input.id) + 1
}
