import type { Finding } from '../../session'
import type { PhantomUse } from '../phantom'
import { phantomChanges } from '../phantom'
import type { Check, StripView } from './view'

/**
 * Phantom power, IEC 61938 P48: who needs it, whom it can harm, and whom it reaches besides.
 * Every action begins with the caution: outputs muted, and time to discharge before plugging.
 */
const MUTE_FIRST = 'Mute the outputs and turn the headphones down first'

/** The other uses on the same switch: they share its 48 V. */
const neighbours = (view: StripView, use: PhantomUse) =>
  view.phantom.filter((other) => other.switchId === use.switchId && other.input.id !== use.input.id)

/** A bank is live when any of its inputs has phantom on. */
const isLive = (view: StripView, use: PhantomUse) => use.input.phantom || neighbours(view, use).some((other) => other.input.phantom)

const change = (view: StripView, use: PhantomUse, to: boolean): Pick<Finding, 'changes'> =>
  ({ changes: phantomChanges(view.phantom, use.input.id, to) })

export const phantomMissing: Check = (view) => view.own
  .filter((use) => use.microphone.gear.phantom === 'needed' && !isLive(view, use))
  .map((use) => {
    const endangered = neighbours(view, use).find((other) => other.microphone.gear.phantom === 'harmful')
    const found: Finding = {
      code: 'phantom-missing',
      severity: 'stop',
      stage: use.input.id,
      message: `"${use.microphone.gear.name}" needs 48 V phantom power and gets none: it gives no signal.`,
      action: 'This input cannot give 48 V: use one that can, or a separate phantom supply.',
    }
    if (!use.input.input.phantom) return found
    if (endangered) return { ...found, action: `Its bank also feeds "${endangered.microphone.gear.name}", which 48 V can harm: first move one of the two to another bank.` }
    return { ...found, action: `${MUTE_FIRST}, then switch 48 V on for this input and wait until it has settled.`, ...change(view, use, true) }
  })

export const phantomHarmful: Check = (view) => view.own
  .filter((use) => use.microphone.gear.phantom === 'harmful' && use.input.phantom)
  .map((use) => ({
    code: 'phantom-harmful',
    severity: 'stop',
    stage: use.input.id,
    message: `48 V is on and can harm "${use.microphone.gear.name}".`,
    action: `${MUTE_FIRST}, switch 48 V off, and wait before plugging or unplugging anything.`,
    ...change(view, use, false),
  }))

export const phantomUnneeded: Check = (view) => view.own
  .filter((use) => use.microphone.gear.phantom === 'harmless' && use.input.phantom && neighbours(view, use).every((other) => other.microphone.gear.phantom !== 'needed'))
  .map((use) => ({
    code: 'phantom-unneeded',
    severity: 'note',
    stage: use.input.id,
    message: `48 V is on, and "${use.microphone.gear.name}" has no use for it.`,
    action: `${MUTE_FIRST}, then switch it off: only what needs phantom power should get it.`,
    ...change(view, use, false),
  }))

/** Said at the input whose switch is on, and at the neighbour that it reaches. */
export const phantomNeighbour: Check = (view) => view.own.flatMap((use) => neighbours(view, use).flatMap((other): Finding[] => {
  const bank = use.input.input.phantomBank ?? ''
  if (use.input.phantom && other.microphone.gear.phantom === 'harmful') {
    return [{
      code: 'phantom-neighbour',
      severity: 'stop',
      stage: use.input.id,
      message: `48 V of bank "${bank}" also reaches "${other.microphone.gear.name}" on the strip "${other.stripName}" and can harm it.`,
      action: `${MUTE_FIRST}, switch the bank off, wait, and move "${other.microphone.gear.name}" to an input of another bank.`,
    }]
  }
  if (!use.input.phantom && other.input.phantom && use.microphone.gear.phantom === 'harmful') {
    return [{
      code: 'phantom-neighbour',
      severity: 'stop',
      stage: use.input.id,
      message: `48 V comes here from "${other.stripName}" through bank "${bank}" and can harm "${use.microphone.gear.name}".`,
      action: `${MUTE_FIRST}, switch the bank off, wait, and move one of the two to another bank.`,
    }]
  }
  if (use.input.phantom && !other.input.phantom && other.microphone.gear.phantom === 'harmless') {
    return [{
      code: 'phantom-neighbour',
      severity: 'note',
      stage: use.input.id,
      message: `48 V of bank "${bank}" also reaches "${other.microphone.gear.name}" on the strip "${other.stripName}", which does not mind.`,
      action: 'Mute that strip too before switching, and never plug it with 48 V on.',
    }]
  }
  return []
}))
