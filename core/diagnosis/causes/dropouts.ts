import { isDigitalInput } from '../../gear'
import { MOST_LOAD, loadOfCell, loadWords } from '../../latency/cpu-load'
import { largerBuffer } from '../../timing/larger-buffer'
import { formatDecimal, formatShort, frames } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import { buffersOf } from '../buffers'
import { DROPOUT_STEPS } from '../dropout-steps'
import type { DiagnosisView } from '../view'

/** Whether the set buffer is known to drop out, or to hold; `null` where nothing is known. */
const drops = (view: DiagnosisView): boolean | null => {
  const kept = view.all.cell?.sustainable
  return kept === undefined ? null : !kept
}
const load = ({ all }: DiagnosisView) => all.cell && loadOfCell(all.cell)

const larger = ({ session, all }: DiagnosisView) => largerBuffer(session.system, buffersOf(all), all.timing.matrix)

export const bufferTooSmall: Cause = {
  title: 'The buffer is too small',
  prior: 12,
  symptoms: { crackle: 0.9 },
  when: { loud: 0.7, regular: 0.5 },
  codes: ['not-sustained', 'buffer-not-offered'],
  shows: {
    'look-at-gaps': { gap: 0.6, repeat: 0.35 },
    'count-ticks': { random: 0.95 },
    'double-buffer': { goes: 0.95 },
    'bypass-plug-ins': { goes: 0.35 },
    'other-programs': { goes: 0.25 },
  },
  present: (view) => drops(view) === true,
  evidence: (view) => {
    const { bufferFrames } = view.session.system
    const known = drops(view)
    const loaded = load(view)
    if (known === true)
      return [
        says(
          loaded && loaded.percent >= MOST_LOAD
            ? `The load is ${loadWords(loaded)} at a buffer of ${bufferFrames} frames; over ${MOST_LOAD} % it drops out sooner or later.`
            : `It dropped out when ${bufferFrames} frames were tried.`,
          10,
        ),
      ]
    if (known === false)
      return [
        says(
          loaded
            ? `The load is ${loadWords(loaded)} at ${bufferFrames} frames.`
            : `${bufferFrames} frames were tried and held.`,
          0.2,
        ),
      ]
    return bufferFrames <= 64 ? [says(`${bufferFrames} frames are few.`, 2)] : []
  },
  fixes: (view) => {
    const count = larger(view)
    return count === null
      ? []
      : [
          {
            says: `Raise the buffer to ${count} frames.`,
            changes: [{ do: 'system', set: { bufferFrames: frames(count) } }],
          },
        ]
  },
  byHand: 'Raise the buffer to the next size; use direct monitoring while recording, so that nobody plays late.',
  byHandIn: (view) =>
    larger(view) === null
      ? 'The buffer is at its largest: take plug-ins off or freeze tracks, close other programs, or use a lower sample rate.'
      : `Raise the buffer to ${larger(view)} frames; use direct monitoring while recording, so that nobody plays late.`,
  after: 'Play the whole session for some minutes at the new buffer, and enter the trial in Timing.',
}

export const plugInLoad: Cause = {
  title: 'Plug-ins take too much processor time',
  prior: 7,
  symptoms: { crackle: 0.8 },
  shows: {
    'look-at-gaps': { gap: 0.6, repeat: 0.35 },
    'bypass-plug-ins': { goes: 0.96 },
    'double-buffer': { stays: 0.7 },
  },
  evidence: (view) => {
    const { loadModel } = view.all.timing
    if (!loadModel || loadModel.perFrameMs === null) return []
    const share = (loadModel.perFrameMs * view.session.system.sampleRate) / 10
    return [
      says(
        `What every frame costs, plug-ins above all, takes ${formatDecimal(share, 0)} % of the machine at any buffer.`,
        share > 40 ? 3 : 0.5,
      ),
    ]
  },
  byHand: DROPOUT_STEPS.plugIns,
  after: 'Read the load meter again and enter it in Timing.',
}

export const otherPrograms: Cause = {
  title: 'Other programs take processor time',
  prior: 6,
  symptoms: { crackle: 0.8 },
  shows: {
    'look-at-gaps': { gap: 0.6, repeat: 0.35 },
    'other-programs': { goes: 0.95 },
    'double-buffer': { stays: 0.6 },
  },
  byHand: DROPOUT_STEPS.programs,
  after: 'Let it run for some minutes and listen.',
}

export const genericDriver: Cause = {
  title: 'A generic or shared driver',
  prior: 5,
  symptoms: { crackle: 0.6, late: 0.7 },
  codes: ['shared-period'],
  shows: {
    'which-driver': { generic: 0.97 },
    'double-buffer': { goes: 0.5 },
    'halve-buffer': { same: 0.8 },
    'listen-direct': { goes: 0.9 },
  },
  present: (view) => view.session.system.driver === 'shared',
  evidence: ({ session: { system }, strip, monitor }, symptoms) => {
    // What is late without a buffer on the way is late for another reason.
    if (symptoms.includes('late') && strip.monitor.route === 'direct' && !monitor?.doubling)
      return [says('The direct sound does not pass the driver.', 0)]
    if (system.driver === 'exclusive') return [says('The driver is the exclusive one already.', 0.03)]
    if (system.driver === 'class') return [says('The driver is the class driver.', 1.5)]
    if (system.driver !== 'shared') return []
    if (strip.monitor.route === 'direct')
      return [says('The driver is the shared one; the direct sound does not go through it.', 1.2)]
    return [
      says(
        system.sharedPeriod === undefined
          ? 'The driver is the shared one; its own mixer adds some 10 ms each way.'
          : `The driver is the shared one; its own mixer adds ${formatShort(2 * system.sharedPeriod)} ms.`,
        8,
      ),
    ]
  },
  fixes: () => [
    {
      says: 'Choose the maker’s exclusive low-latency driver.',
      changes: [{ do: 'system', set: { driver: 'exclusive' } }],
    },
  ],
  byHand: DROPOUT_STEPS.driver,
  after: 'Measure the round trip again: it is another one.',
}

export const usbPath: Cause = {
  title: 'The hub, the port or the USB cable',
  prior: 6,
  symptoms: { 'crackle': 0.7, 'not-seen': 0.5 },
  shows: {
    'look-at-gaps': { gap: 0.75, repeat: 0.1, jump: 0.1 },
    'other-port': { goes: 0.95 },
    'double-buffer': { stays: 0.9 },
    'other-cable': { seen: 0.3 },
  },
  byHand: `${DROPOUT_STEPS.port} ${DROPOUT_STEPS.cable}`,
  after: 'Let it run for some minutes and listen.',
  caution: 'Monitors down while a unit is unplugged.',
}

const digitalStages = ({ stages }: DiagnosisView) => stages.filter((each) => isDigitalInput(each))

export const clocksUnlocked: Cause = {
  title: 'Clocks that are not locked on a digital link',
  prior: 4,
  symptoms: { crackle: 0.9 },
  when: { regular: 6 },
  codes: ['word-clock', 'link-capacity'],
  shows: {
    'look-at-gaps': { jump: 0.93 },
    'count-ticks': { regular: 0.95 },
    'clock-lock': { several: 0.97 },
    'double-buffer': { stays: 0.97 },
  },
  evidence: (view) => {
    const linked = view.all.strips.some((strip) => digitalStages(strip).length > 0)
    return linked
      ? [says('Two units meet on a digital link: one of them has to give the clock.', 4)]
      : (view.session.system.devices ?? []).length > 0
        ? [says('Other digital devices are listed beside the unit.', 1)]
        : [says('No digital link is in the session.', 0.1)]
  },
  byHand: 'Let one unit give the clock, set all others to follow it by the link or a clock cable, and wait for lock.',
  after: 'Record a minute of silence: no tick may be in it.',
}

export const mainsSwitching: Cause = {
  title: 'Mains switching nearby',
  prior: 3,
  symptoms: { crackle: 0.6 },
  shows: {
    'look-at-gaps': { jump: 0.8, none: 0.15 },
    'count-ticks': { switched: 0.95 },
    'double-buffer': { stays: 0.97 },
  },
  byHand:
    'Find what switches – fridge, heater, lift, dimmer –, move the supply to another circuit, or record between. Mains work is for a qualified person.',
  after: 'Record through one switching, and look for the click.',
  caution: 'Mains wiring and what is inside walls is for a qualified person; local rules come first.',
}
