import { isDiBox, isElectricSource, isProcessor, isSoundSource, isPad } from '../gear'
import { isFed, phantomSwitch } from '../chain/phantom'
import { applyChanges } from '../edits'
import type { Change } from '../edits'
import { microphoneOf, pickupOf, shareOf, turn } from './causes/common'
import type { CheckId } from './checks'
import { SessionView } from './view'
import type { DiagnosisView } from './view'

/**
 * What a check shows on a chain that is as the session says, worked out from levels, noise and times; `null` where the session cannot
 * tell. A simulated performer answers by it, and a learner’s checks do.
 */
export const observed = (view: DiagnosisView, check: CheckId): string | null => OBSERVED[check]?.(view) ?? null

const end = ({ points }: DiagnosisView) => points.at(-1)
const gains = ({ chain }: DiagnosisView) =>
  chain.controls.filter(({ isFader, isSystemSlider }) => !isFader && !isSystemSlider)
const clipsIn = ({ points, stages }: DiagnosisView, unit: 'dBu' | 'dBFS') =>
  points.some((point, i) => point.unit === unit && point.clipped && !isSoundSource(stages[i]))
const codes = ({ findings }: DiagnosisView) => new Set<string>(findings.map(({ code }) => code))

/** The same strip with some settings otherwise. */
function changed(view: DiagnosisView, changes: readonly Change[]): DiagnosisView {
  const after = new SessionView(applyChanges(view.session, changes)).strips
  return after.find(({ strip }) => strip.id === view.strip.id) ?? view
}

/** A quieter noise than that against the programme is heard to follow nothing, dB (common practice, no source). */
const HEARD = 1

const OBSERVED: Partial<Record<CheckId, (view: DiagnosisView) => string | null>> = {
  'follow-hiss': (view) => {
    const turned = view.chain.controls.map((control) => {
      const to = Math.max(control.range.gainMin, control.value - 6)
      const after = changed(view, [turn(view, control.stage, control.setting, to)])
      return { control, fell: (end(view)?.noise ?? 0) - (end(after)?.noise ?? 0) }
    })
    const most = turned.reduce<(typeof turned)[number] | null>(
      (best, each) => (each.fell > HEARD && (!best || each.fell > best.fell + 0.5) ? each : best),
      null,
    )
    if (!most) return 'none'
    if (most.control.isSystemSlider) return 'slider'
    return most.control === turned[0]?.control ? 'first' : 'late'
  },
  'cover-microphone': (view) =>
    microphoneOf(view) && shareOf(view, ({ name }) => name === 'room') > 0.5 ? 'goes' : 'stays',
  'source-volume': (view) => {
    const pickup = pickupOf(view)
    return isElectricSource(pickup) && codes(view).has('volume-down') ? 'down' : 'up'
  },
  'bypass-dynamics': ({ points, stages }) =>
    stages.some(
      (stage, i) =>
        isProcessor(stage) &&
        stage.gear.blocks.some(
          ({ on, type }) =>
            on && (type === 'expander' || (type === 'compressor' && (points[i]?.reduction?.average ?? 0) > 1)),
        ),
    )
      ? 'changes'
      : 'same',
  'recorder-meter': (view) => {
    const at = view.chain.place && view.points[view.chain.place.index]
    if (!at || at.unit !== 'dBFS') return null
    return at.peak >= -0.1 ? 'top' : at.peak < -40 ? 'low' : 'middle'
  },
  'flat-tops': (view) => {
    const at = view.chain.place && view.points[view.chain.place.index]
    if (at && at.unit === 'dBFS' && at.peak > 0) return 'top'
    return clipsIn(view, 'dBu') || (view.points[0]?.headroom ?? 0) < 0 ? 'below' : null
  },
  'first-gain-down': (view) => {
    const turnable = gains(view)
    const [first] = turnable
    const last = turnable.at(-1)
    if (!first || !clipsIn(view, 'dBu')) return null
    const down = Math.max(first.range.gainMin, first.value - 10)
    const changes: Change[] = [turn(view, first.stage, first.setting, down)]
    if (last && last !== first)
      changes.push(turn(view, last.stage, last.setting, Math.min(last.range.gainMax, last.value + first.value - down)))
    return clipsIn(changed(view, changes), 'dBu') ? 'stays' : 'goes'
  },
  'move-back': (view) => {
    const from = view.stages[0]
    if (!isSoundSource(from)) return 'stays'
    if ((view.points[0]?.headroom ?? 1) >= 0) return null
    const after = changed(view, [turn(view, from.id, 'distance', 2 * from.distance)])
    return (after.points[0]?.headroom ?? 0) >= 0 ? 'goes' : 'stays'
  },
  'which-socket': (view) => {
    const found = codes(view)
    if (['line-into-mic', 'line-into-instrument', 'double-preamp'].some((code) => found.has(code))) return 'hot'
    if (['mic-into-line', 'instrument-into-mic'].some((code) => found.has(code))) return 'cold'
    if (found.has('loading')) return 'hot'
    return 'fits'
  },
  'system-slider': ({ chain }) => {
    const slider = chain.controls.find(({ isSystemSlider }) => isSystemSlider)
    return !slider || slider.value === 0 ? 'zero' : slider.value > 0 ? 'up' : 'down'
  },
  'pads': ({ stages }) => (stages.some((stage) => stage.settings.pad === true || isPad(stage)) ? 'in' : 'out'),
  'gain-position': (view) => {
    const all = view.chain.controls.filter(({ isSystemSlider }) => !isSystemSlider)
    if (
      all.some(({ value, range, isFader }) => !isFader && range.gainMax > range.gainMin && value >= range.gainMax - 3)
    )
      return 'end'
    if (all.some(({ value, range }) => value <= range.gainMin + 1)) return 'down'
    return 'middle'
  },
  'double-buffer': ({ all }) => {
    const { cell } = all
    const twice = all.timing.matrix.find(
      (each) => each.sampleRate === cell?.sampleRate && each.bufferFrames === 2 * cell.bufferFrames,
    )
    return cell?.sustainable === false && twice?.sustainable !== undefined
      ? twice.sustainable
        ? 'goes'
        : 'stays'
      : null
  },
  'which-driver': ({ session: { system } }) =>
    system.driver === 'shared' || system.driver === 'class' ? 'generic' : null,
  'how-far-apart': ({ monitor }) => (monitor?.doubling ? (monitor.doubling.delayMs < 30 ? 'hollow' : 'apart') : null),
  'listen-direct': ({ evaluated, strip }) => {
    const route = (name: string) => evaluated.latency.find((each) => each.route === name)
    const direct = route('direct')
    if (!direct) return 'none'
    return strip.monitor.route === 'software' ? (direct.milliseconds < 12 ? 'goes' : 'stays') : 'stays'
  },
  'halve-buffer': ({ evaluated, strip }) => {
    const route = evaluated.latency.find((each) => each.route === strip.monitor.route)
    const buffers = (route?.parts ?? []).filter(({ name }) => name === 'buffer-in' || name === 'buffer-out')
    const time = buffers.reduce((sum, { milliseconds }) => sum + milliseconds, 0)
    return time / 2 > 0.25 * (route?.milliseconds ?? Infinity) ? 'earlier' : 'same'
  },
  'look-at-track': ({ monitor }) => (monitor && monitor.ears !== 'both' ? 'panned' : null),
  'phantom-lamp': ({ chain }) => {
    const need = chain.own.find(({ attitude }) => attitude === 'needed')
    const live = (use: (typeof chain.own)[number]) =>
      isFed(use) && (phantomSwitch(chain.phantom, use.supply.switchId)?.on ?? false)
    if (chain.own.some((use) => use.attitude === 'harmful' && live(use))) return 'harmful'
    return !need ? 'needless' : live(need) ? 'on' : 'off'
  },
  'read-rates': ({ session: { system } }) =>
    (system.devices ?? []).some(({ sampleRate }) => sampleRate !== system.sampleRate) ? 'differ' : null,
  'mute-sends': ({ busses }) => {
    const open = busses.flatMap(({ evaluated }) => evaluated.feedback?.microphones ?? [])
    return open.length === 0 ? null : open.length >= 3 ? 'several' : 'one'
  },
  'earth-lift': ({ stages }) => (stages.some((each) => isDiBox(each)) ? null : 'none'),
  'microphone-side': (view) => {
    const microphone = microphoneOf(view)
    if (!microphone) return 'none'
    return codes(view).has('off-axis') ? 'brighter' : null
  },
  'flip-polarity': (view) => (hasTwin(view) ? null : 'none'),
  'one-microphone': (view) => (hasTwin(view) ? null : 'none'),
  'short-lead': (view) => (codes(view).has('treble-in-lead') ? 'brighter' : 'same'),
}

/** Another strip with the same source. */
const hasTwin = ({ all, strip, stages }: DiagnosisView) =>
  all.strips.some((other) => other.strip.id !== strip.id && other.stages[0]?.gear.id === stages[0]?.gear.id)
