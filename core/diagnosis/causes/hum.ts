import { inPlug, outPlug } from '../../chain/joint'
import type { ResolvedStage } from '../../gear/stage'
import type { Plug } from '../../gear'
import { isDeskChannel, isDiBox, isElectricSource, isMicrophone, isPreamp, isSoundSource } from '../../gear'
import { formatDecimal } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import type { DiagnosisView } from '../view'
import { evidenceOf, has, pickupOf, turn } from './common'

const MAINS =
  'Never lift a protective earth: it is there for your life. Mains work, and what is inside a device or a wall, is for a qualified person; local rules come first.'

/** A box that is fed from a socket of its own. A pickup has no supply, or a battery. */
const hasMainsSupply = (stage: ResolvedStage): boolean =>
  isDeskChannel(stage) || isPreamp(stage) || (isElectricSource(stage) && stage.gear.output === 'line')

/** Longer than that an unbalanced lead is long, m (common practice, no source). */
const LONG = 6

export const earthLoop: Cause = {
  title: 'An earth loop',
  prior: 10,
  symptoms: { hum: 0.9 },
  when: { always: 1.5, changed: 1.2 },
  shows: {
    'hum-lines': { odd: 0.8, even: 0.1, none: 0.02 },
    'on-battery': { goes: 0.9 },
    'turn-the-pickup': { same: 0.97 },
    'balanced-lead': { changes: 0.3 },
    'earth-lift': { goes: 0.25 },
  },
  evidence: (view) =>
    view.stages.some(hasMainsSupply) ? [says('A device with its own power supply is connected to the unit.', 1.5)] : [],
  byHand:
    'Feed all devices from one socket strip, run the computer on its battery, and use balanced cables. Or put a DI box or a line transformer with its signal earth lifted between.',
  after: 'Listen to a pause with the gain as in the take.',
  caution: MAINS,
}

export const unbalancedLead: Cause = {
  title: 'A long unbalanced cable',
  prior: 7,
  symptoms: { hum: 0.8, hiss: 0.05 },
  codes: ['unbalanced'],
  shows: {
    'hum-lines': { odd: 0.7, alone: 0.2, none: 0.02 },
    'balanced-lead': { changes: 0.95 },
    'turn-the-pickup': { same: 0.8 },
  },
  present: (view) => has(view, 'unbalanced') || longLead(view),
  evidence: (view) => {
    if (has(view, 'unbalanced')) return evidenceOf(view, ['unbalanced'], 6)
    const long = leads(view)
    if (long.length > 0)
      return [
        says(
          `The cable into “${long[0]?.gear.name}” is ${formatDecimal(long[0]?.settings.cable, 1)} m long.`,
          longLead(view) ? 6 : 1.5,
        ),
      ]
    if (balancedThroughout(view)) return [says('Every cable of this strip is balanced at both ends.', 0.1)]
    return pickupOf(view)
      ? [says('A cable from an instrument is mostly unbalanced.', 1.5)]
      : [says('The strip begins with a microphone, on a balanced cable.', 0.4)]
  },
  fixes: (view) =>
    leads(view).map(({ id, gear }) => ({
      says: `Take a cable of 3 m into “${gear.name}”.`,
      changes: [turn(view, id, 'cable', 3)],
    })),
  byHand: 'A balanced cable between balanced sockets; a DI box near the instrument, and the short cable into it.',
  after: 'Listen to a pause with the gain as in the take.',
}
/** Stages that a long lead goes into, but for those that are balanced at both of its ends: length brings no hum into them. */
const leads = ({ stages }: DiagnosisView) =>
  stages.filter((stage, i) => {
    const from = stages[i - 1]
    return (stage.settings.cable ?? 0) >= LONG && from !== undefined && !isBalancedJoint(from, stage)
  })
const isBalancedJoint = (from: ResolvedStage, to: ResolvedStage): boolean =>
  isMicrophone(from) || [outPlug(from)?.balance, inPlug(to)?.balance].every(isBalanced)
const isBalanced = (balance: Plug['balance']) => balance !== undefined && balance !== 'one-leg'
const longLead = (view: DiagnosisView) => pickupOf(view) !== undefined && leads(view).length > 0
const balancedThroughout = ({ stages }: DiagnosisView) =>
  stages.every((stage, i) => {
    const from = stages[i - 1]
    return from === undefined || !isOnWire(from) || isBalancedJoint(from, stage)
  })
const isOnWire = (stage: ResolvedStage) => !isSoundSource(stage)

export const diEarth: Cause = {
  title: 'The earth lift of the DI box is set wrong',
  prior: 5,
  symptoms: { hum: 0.85 },
  shows: {
    'hum-lines': { odd: 0.7, even: 0.15, none: 0.02 },
    'earth-lift': { goes: 0.95 },
    'on-battery': { goes: 0.3 },
  },
  evidence: (view) =>
    view.stages.some((each) => isDiBox(each))
      ? [says('There is a DI box in this strip.', 3)]
      : [says('There is no DI box in this strip.', 0.05)],
  byHand: 'Turn the switch of the signal’s earth at the DI box over – never the mains earth.',
  after: 'Listen to a pause with the gain as in the take.',
  caution: MAINS,
}

export const humField: Cause = {
  title: 'A supply or lamp near a pickup or cable',
  prior: 6,
  symptoms: { hum: 0.85 },
  shows: {
    'hum-lines': { alone: 0.75, odd: 0.15, none: 0.02 },
    'turn-the-pickup': { changes: 0.95 },
    'on-battery': { goes: 0.15 },
  },
  evidence: (view) => {
    const pickup = pickupOf(view)
    return isElectricSource(pickup) && pickup.gear.output !== 'line'
      ? [says(`“${pickup.gear.name}” is a pickup: a coil takes up fields.`, 2)]
      : []
  },
  byHand:
    'Turn or move the instrument or the microphone, keep cables off supplies, and cross mains cables at right angles.',
  after: 'Listen to a pause with the gain as in the take.',
  caution: MAINS,
}

export const supplyRipple: Cause = {
  title: 'Ripple of a power supply',
  prior: 4,
  symptoms: { hum: 0.85, hiss: 0.05 },
  shows: { 'hum-lines': { even: 0.9, none: 0.02 }, 'on-battery': { goes: 0.4 }, 'turn-the-pickup': { same: 0.95 } },
  byHand: 'Try another supply or a battery for each device in turn, and keep cables away from supplies.',
  after: 'Listen to a pause with the gain as in the take.',
  caution: `${MAINS} A supply of another voltage or polarity can destroy a device.`,
}
