import type { Finding } from '../../session'
import type { PhantomSupply, PhantomUse } from '../phantom'
import { phantomChanges } from '../phantom'
import type { Check, StripView } from './view'

/**
 * Phantom power, IEC 61938 P48: who needs it, whom it can harm, and whom it reaches besides.
 * Every action begins with the caution: outputs muted, and time to discharge before plugging.
 */
const MUTE_FIRST = 'Mute the outputs and turn the headphones down first'

/** A use with the box that can feed it. */
type Fed = PhantomUse & { supply: PhantomSupply }
const isFed = (use: PhantomUse): use is Fed => use.supply !== null && !use.blocked
const fed = (uses: readonly PhantomUse[]) => uses.filter(isFed)

/** The other uses on the same switch: they share its 48 V. */
const neighbours = (view: StripView, use: Fed) =>
  fed(view.phantom).filter(
    (other) => other.supply.switchId === use.supply.switchId && other.supply.stage.id !== use.supply.stage.id,
  )

/** A bank is live when any of its inputs has phantom on. */
const isLive = (view: StripView, use: Fed) => use.supply.on || neighbours(view, use).some((other) => other.supply.on)

const change = (view: StripView, use: Fed, to: boolean): Pick<Finding, 'changes'> => ({
  changes: phantomChanges(view.phantom, use.supply.stage.id, to),
})

const name = ({ user }: PhantomUse) => `"${user.gear.name}"`

export const phantomMissing: Check = (view) =>
  view.own
    .filter((use) => use.attitude === 'needed' && !(isFed(use) && isLive(view, use)))
    .map((use) => {
      const found: Finding = {
        code: 'phantom-missing',
        severity: 'stop',
        stage: use.supply?.stage.id ?? use.next?.id ?? use.user.id,
        joint: true,
        message: `${name(use)} needs 48 V phantom power and gets none: it gives no signal.`,
        action: 'This input cannot give 48 V: use one that can, or a separate phantom supply.',
      }
      if (use.blocked)
        return {
          ...found,
          action:
            '48 V passes from XLR to XLR only, never through a jack: use an XLR lead and an XLR input, or a separate phantom supply.',
        }
      if (!isFed(use)) {
        return {
          ...found,
          action:
            use.next?.kind === 'booster'
              ? 'A booster takes its 48 V for itself and passes none on: use it with passive microphones only, and take it out here.'
              : '48 V comes from the first active box after it, and this one gives none: put a preamp or a microphone input there, or a separate phantom supply.',
        }
      }
      const endangered = neighbours(view, use).find((other) => other.attitude === 'harmful')
      if (!use.supply.can) return found
      if (endangered)
        return {
          ...found,
          action: `Its bank also feeds ${name(endangered)}, which 48 V can harm: first move one of the two to another bank.`,
        }
      return {
        ...found,
        action: `${MUTE_FIRST}, then switch 48 V on for this input and wait until it has settled.`,
        ...change(view, use, true),
      }
    })

export const phantomHarmful: Check = (view) =>
  fed(view.own)
    .filter((use) => use.attitude === 'harmful' && use.supply.on)
    .map((use) => ({
      code: 'phantom-harmful',
      severity: 'stop',
      stage: use.supply.stage.id,
      joint: true,
      message: `48 V is on and can harm ${name(use)}.`,
      action: `${MUTE_FIRST}, switch 48 V off, and wait before plugging or unplugging anything.`,
      ...change(view, use, false),
    }))

export const phantomUnneeded: Check = (view) =>
  fed(view.own)
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
      message: `48 V is on, and ${name(use)} has no use for it.`,
      action: `${MUTE_FIRST}, then switch it off: only what needs phantom power should get it.`,
      ...change(view, use, false),
    }))

/** Said at the input whose switch is on, and at the neighbour that it reaches. */
export const phantomNeighbour: Check = (view) =>
  fed(view.own).flatMap((use) =>
    neighbours(view, use).flatMap((other): Finding[] => {
      const bank = use.supply.bank ?? ''
      const found = { code: 'phantom-neighbour', stage: use.supply.stage.id, joint: true as const }
      if (use.supply.on && other.attitude === 'harmful') {
        return [
          {
            ...found,
            severity: 'stop',
            message: `48 V of bank "${bank}" also reaches ${name(other)} on the strip "${other.stripName}" and can harm it.`,
            action: `${MUTE_FIRST}, switch the bank off, wait, and move ${name(other)} to an input of another bank.`,
          },
        ]
      }
      if (!use.supply.on && other.supply.on && use.attitude === 'harmful') {
        return [
          {
            ...found,
            severity: 'stop',
            message: `48 V comes here from "${other.stripName}" through bank "${bank}" and can harm ${name(use)}.`,
            action: `${MUTE_FIRST}, switch the bank off, wait, and move one of the two to another bank.`,
          },
        ]
      }
      if (use.supply.on && !other.supply.on && other.attitude === 'harmless') {
        return [
          {
            ...found,
            severity: 'note',
            message: `48 V of bank "${bank}" also reaches ${name(other)} on the strip "${other.stripName}", which does not mind.`,
            action: 'Mute that strip too before switching, and never plug it with 48 V on.',
          },
        ]
      }
      return []
    }),
  )
