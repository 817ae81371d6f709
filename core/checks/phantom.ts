import type { Draft, Fix } from './finding'
import { analogueInput, isInlinePreamp, isInterface } from '../gear'
import type { FedUse, PhantomUse } from '../chain/phantom'
import { isFed, phantomChanges, phantomSwitch, usersText, usesOn } from '../chain/phantom'
import { freePorts } from './remedies'
import { toPorts } from './to-port'
import type { Check, StripView } from './view'

/**
 * Phantom power, IEC 61938 P48: who needs it, whom it can harm, and whom it reaches besides.
 * Every action begins with the caution: outputs muted, and time to discharge before plugging.
 */
const MUTE_FIRST = 'Mute the outputs and turn the headphones down first'

const OFF = `${MUTE_FIRST}, switch 48 V off, and wait before plugging or unplugging anything.`
const OFF_UNNEEDED = `${MUTE_FIRST}, then switch it off: only what needs phantom power should get it.`

/** The other uses on the same switch: they share its 48 V. */
const neighbours = (view: StripView, use: FedUse) =>
  usesOn(view.phantom, use.supply.switchId).filter((other) => other.supply.stage.id !== use.supply.stage.id)

/** Switching 48 V for everything on its switch, as it is done with safety. */
const switching = (view: StripView, use: FedUse, to: boolean, action: string): Pick<Draft, 'fixes'> => ({
  fixes: () => [{ action, changes: phantomChanges(view.phantom, use.supply.stage.id, to) }],
})

/** Whether a use can go to another input of its unit: what is on that switch already bears what this one brings. */
function isSafe(view: StripView, { attitude, supply }: PhantomUse, port: string): boolean {
  const stage = supply?.stage
  if (!isInterface(stage)) return true
  const bank = analogueInput(stage.gear, port)?.phantomBank
  const there = bank === undefined ? null : phantomSwitch(view.phantom, `${stage.gear.id}/bank/${bank}`)
  if (!there) return true
  return attitude === 'needed' ? there.harmed.length === 0 : attitude === 'harmful' ? there.needing.length === 0 : true
}

/** Free microphone inputs of the same unit on another switch. */
function otherBanks(view: StripView, use: FedUse): Fix[] {
  const { stage, bank } = use.supply
  const needs = use.attitude === 'needed'
  if (!isInterface(stage) || view.strip.stages.every((each) => each.id !== stage.id)) return []
  const elsewhere = freePorts(view.session, stage.gear.id, 'mic').filter((port) => {
    const input = analogueInput(stage.gear, port)
    return input !== undefined && (bank === undefined || input.phantomBank !== bank) && isSafe(view, use, port)
  })
  return toPorts(
    view,
    stage,
    elsewhere,
    `${MUTE_FIRST}, 48 V off, wait, then move ${name(use)} to input {port}, which is on another switch${needs ? '; switch 48 V on there and wait' : ''}.`,
    needs,
  )
}

const toAnotherBank = (view: StripView, use: FedUse) =>
  otherBanks(view, use).length > 0
    ? 'move one of the two to another bank'
    : 'use a separate phantom supply or another preamp for one of the two: this unit has no free input on another bank'

const name = ({ user }: PhantomUse) => `“${user.gear.name}”`

export const phantomMissing: Check = (view) =>
  view.own
    .filter((use) => use.attitude === 'needed' && !isSupplied(view, use))
    .map((use) => {
      const found: Draft = {
        code: 'phantom-missing',
        severity: 'stop',
        stage: use.supply?.stage.id ?? use.next?.id ?? use.user.id,
        joint: true,
        message: `${name(use)} needs 48 V phantom power and gets none: it gives no signal.`,
        action: 'This input cannot give 48 V: use one that can, or a separate phantom supply.',
        fixes: () => poweredInputs(view, use),
      }
      if (use.blocked)
        return {
          ...found,
          action:
            '48 V passes from XLR to XLR only, never through a jack: use an XLR cable and an XLR input, or a separate phantom supply.',
        }
      if (!isFed(use)) {
        return {
          ...found,
          action: isInlinePreamp(use.next)
            ? 'An inline preamp uses its 48 V and passes none on: use it with passive microphones only, and remove it here.'
            : '48 V comes from the first active device after it, and this one gives none. Put a preamp or a microphone input there, or a separate phantom supply.',
        }
      }
      const fed = phantomSwitch(view.phantom, use.supply.switchId)
      if (!use.supply.can || !fed) return found
      if (fed.should === 'conflict')
        return {
          ...found,
          action: `Keep 48 V off: its switch also feeds ${usersText(fed.harmed)}, which must not get it. First ${toAnotherBank(view, use)}.`,
          fixes: () => otherBanks(view, use),
        }
      const action = `${MUTE_FIRST}, then switch 48 V on for this input and wait until it has settled.`
      return { ...found, action, ...switching(view, use, true, action) }
    })

/** A bank is live when any of its inputs has phantom on. */
const isSupplied = (view: StripView, use: PhantomUse): boolean =>
  isFed(use) && (phantomSwitch(view.phantom, use.supply.switchId)?.on ?? false)

/** Free microphone inputs of the same unit that can give 48 V. */
function poweredInputs(view: StripView, use: PhantomUse): Fix[] {
  const { next } = use
  if (!isInterface(next)) return []
  const able = freePorts(view.session, next.gear.id, 'mic').filter(
    (port) => analogueInput(next.gear, port)?.phantom && isSafe(view, use, port),
  )
  return toPorts(view, next, able, `${MUTE_FIRST}, move it to input {port}, then switch 48 V on there and wait.`, true)
}

export const phantomHarmful: Check = (view) =>
  view.own
    .filter(isFed)
    .filter((use) => use.attitude === 'harmful' && use.supply.on)
    .map((use) => {
      const fed = phantomSwitch(view.phantom, use.supply.switchId)
      const needing = fed?.should === 'conflict' ? usersText(fed.needing) : ''
      return {
        code: 'phantom-harmful',
        severity: 'stop',
        stage: use.supply.stage.id,
        joint: true,
        message: `48 V is on and can harm ${name(use)}.`,
        action: needing ? `${OFF} ${needing} on the same switch needs it: ${toAnotherBank(view, use)}.` : OFF,
        ...switching(view, use, false, OFF),
      }
    })

export const phantomUnneeded: Check = (view) =>
  view.own
    .filter(isFed)
    .filter(
      (use) =>
        use.attitude === 'harmless' &&
        use.supply.on &&
        neighbours(view, use).every((other) => other.attitude !== 'needed'),
    )
    .map((use) => ({
      code: 'phantom-unneeded',
      severity: 'note',
      stage: use.supply.stage.id,
      joint: true,
      message: `48 V is on, and ${name(use)} does not need it.`,
      action: OFF_UNNEEDED,
      ...switching(view, use, false, OFF_UNNEEDED),
    }))

/** Said at the input whose switch is on, and at the neighbour that it reaches. */
export const phantomNeighbour: Check = (view) => {
  const found: Draft[] = []
  for (const use of view.own)
    if (isFed(use))
      for (const other of usesOn(view.phantom, use.supply.switchId))
        if (other.supply.stage.id !== use.supply.stage.id) reach(view, use, other, found)
  return found
}

/** What the 48 V of one switch has to do with two that share it. */
function reach(view: StripView, use: FedUse, other: FedUse, found: Draft[]) {
  const bank = use.supply.bank ?? ''
  const here = { code: 'phantom-neighbour', stage: use.supply.stage.id, joint: true } as const
  if (use.supply.on && other.attitude === 'harmful')
    found.push({
      ...here,
      severity: 'stop',
      message: `48 V of bank “${bank}” also reaches ${name(other)} on the strip “${other.stripName}” and can harm it.`,
      action: `${MUTE_FIRST}, switch the bank off, wait, and ${toAnotherBank(view, use)}.`,
      fixes: () => otherBanks(view, use),
    })
  else if (!use.supply.on && other.supply.on && use.attitude === 'harmful')
    found.push({
      ...here,
      severity: 'stop',
      message: `48 V comes here from “${other.stripName}” through bank “${bank}” and can harm ${name(use)}.`,
      action: `${MUTE_FIRST}, switch the bank off, wait, and ${toAnotherBank(view, use)}.`,
      fixes: () => otherBanks(view, use),
    })
  else if (use.supply.on && !other.supply.on && other.attitude === 'harmless')
    found.push({
      ...here,
      severity: 'note',
      message: `48 V of bank “${bank}” also reaches ${name(other)} on the strip “${other.stripName}”, which tolerates it.`,
      action: 'Mute that strip too before switching, and never plug it with 48 V on.',
    })
}
