import { isElectricSource, isProcessor, isSoundSource } from '../../gear'
import { farEnough } from '../../checks/headroom'
import { volumeLoss } from '../../gear/electric-source/chain'
import { formatDecimal } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import type { DiagnosisView } from '../view'
import { dB, evidenceOf, found, has, fixesOf, microphoneOf, pickupOf, turn } from './common'

/** Clipping is complained of when it happens, or when the surge comes near it. */
const CONVERTER = ['clips', 'surge-clips'] as const
const STAGE = ['overdriven', 'surge-overdrives', 'sum-too-hot'] as const
const CAPSULE = ['capsule-overload', 'capsule-overload-surge'] as const
const WRONG_INPUT = ['line-into-mic', 'line-into-instrument', 'double-preamp'] as const

/** The stage whose finding it is, whether a plug-in’s. */
const overdriven = (view: DiagnosisView, inDigital: boolean) =>
  view.findings.filter(
    ({ code, stage }) =>
      (STAGE as readonly string[]).includes(code) &&
      inDigital === (view.points.find((point) => point.stage === stage)?.unit === 'dBFS'),
  )

/** Turned down by what it is over, and 1 dB. */
const endHeadroom = (view: DiagnosisView) => {
  const point = view.chain.place && view.points[view.chain.place.index]
  return point?.headroom ?? null
}

export const converterOver: Cause = {
  title: 'The converter is driven over 0 dBFS',
  prior: 10,
  symptoms: { distortion: 0.95 },
  when: { loud: 3, always: 0.5 },
  codes: [...CONVERTER, 'little-headroom'],
  readings: 'higher',
  shows: { 'flat-tops': { top: 0.95, none: 0.03 }, 'recorder-meter': { top: 0.97 }, 'first-gain-down': { goes: 0.2 } },
  present: (view) => has(view, ...CONVERTER),
  evidence: (view) => {
    if (has(view, ...CONVERTER)) return evidenceOf(view, CONVERTER, has(view, 'clips') ? 20 : 4)
    const left = endHeadroom(view)
    return left === null
      ? [says('The strip reaches no converter.', 0.3)]
      : [says(`${dB(left)} are left above the rehearsed peak at the converter.`, left > 12 ? 0.1 : 0.4)]
  },
  fixes: (view) => fixesOf(view, CONVERTER),
  byHand: 'Turn the gain before the converter down until the loudest passage peaks where the target wants it.',
  after: 'Watch the recorder’s meter through the loudest passage.',
}

export const earlyClip: Cause = {
  title: 'An earlier stage clips, before the recorder’s meter',
  prior: 8,
  symptoms: { distortion: 0.95 },
  when: { loud: 3, always: 0.5 },
  codes: [...STAGE],
  readings: 'higher',
  shows: {
    'flat-tops': { below: 0.85, none: 0.12 },
    'recorder-meter': { middle: 0.9, top: 0.05 },
    'first-gain-down': { goes: 0.95 },
  },
  present: (view) => overdriven(view, false).length > 0,
  evidence: (view) => {
    const over = overdriven(view, false)
    if (over.length > 0)
      return over.slice(0, 1).map(({ message, severity }) => says(message, severity === 'stop' ? 20 : 4))
    const least = view.points.filter(({ unit, headroom }) => unit === 'dBu' && headroom !== null)
    const [tight] = [...least].sort((a, b) => (a.headroom ?? 0) - (b.headroom ?? 0))
    return tight
      ? [
          says(
            `No stage before the converter is overdriven: “${view.name(tight.stage)}” has ${dB(tight.headroom ?? 0)} left.`,
            0.1,
          ),
        ]
      : [says('No stage before the converter has a known ceiling.', 0.5)]
  },
  fixes: (view) => fixesOf(view, [...STAGE]),
  byHand: 'Turn the stage before it down until it is clean, then set every later stage again.',
  after: 'Set what follows again, and read each meter on the way.',
  caution: 'Headphones and loudspeakers down while gains are moved.',
}

export const capsuleOverload: Cause = {
  title: 'The capsule is overloaded',
  prior: 3,
  symptoms: { distortion: 0.9 },
  when: { loud: 3, always: 0.5 },
  codes: [...CAPSULE],
  readings: 'higher',
  shows: {
    'flat-tops': { below: 0.6, none: 0.38 },
    'recorder-meter': { middle: 0.9 },
    'first-gain-down': { stays: 0.97 },
    'move-back': { goes: 0.97 },
  },
  present: (view) => has(view, ...CAPSULE),
  evidence: (view) => {
    if (!microphoneOf(view)) return [says('There is no microphone in this strip.', 0)]
    if (has(view, ...CAPSULE)) return evidenceOf(view, CAPSULE, 20)
    const left = view.points[0]?.headroom
    return left == null
      ? [says('The microphone’s maximum SPL is not known.', 0.7)]
      : [says(`The capsule has ${dB(left)} left above the rehearsed peak.`, left > 12 ? 0.05 : 0.4)]
  },
  fixes: (view) => {
    const from = view.stages[0]
    const over = Math.max(0, (view.points[0]?.surgePeak ?? 0) - (view.points[0]?.ceiling ?? Infinity))
    const control = view.chain.controls.find(({ isFader, locked }) => !isFader && !locked)
    const distance = isSoundSource(from) ? farEnough(from, over + 1) : null
    if (!from || distance === null || over <= 0) return []
    const farther = turn(view, from.id, 'distance', distance)
    return control ? [{ says: `Move it to ${formatDecimal(distance, 2)} m.`, changes: [farther] }] : []
  },
  byHand: 'Go further away, or use a microphone with a higher maximum SPL, or its own pad. No gain behind it helps.',
  after: 'Set the gain again for the new distance.',
}

export const hotSocket: Cause = {
  title: 'A line output in a microphone or instrument input',
  prior: 5,
  symptoms: { 'distortion': 0.8, 'level-drifts': 0.05 },
  codes: [...WRONG_INPUT],
  readings: 'higher',
  shows: {
    'flat-tops': { below: 0.5, top: 0.4 },
    'which-socket': { hot: 0.97 },
    'first-gain-down': { goes: 0.3, stays: 0.7 },
    'gain-position': { down: 0.7 },
  },
  present: (view) => has(view, ...WRONG_INPUT),
  evidence: (view) =>
    has(view, ...WRONG_INPUT)
      ? evidenceOf(view, WRONG_INPUT, has(view, 'line-into-mic', 'line-into-instrument') ? 25 : 8)
      : [says('The level classes of all connections fit, as the session has them.', 0.1)],
  fixes: (view) => fixesOf(view, WRONG_INPUT),
  byHand: 'Move the plug to a line input, or put a pad or a DI box between.',
  after: 'Set the gain again, from its minimum.',
  caution: 'Gain down and monitors muted before plugs are moved.',
}

const PICKUP_HOT = ['overdriven', 'surge-overdrives', 'clips', 'surge-clips'] as const

export const hotPickup: Cause = {
  title: 'The pickup is too hot for its input',
  prior: 4,
  symptoms: { distortion: 0.9 },
  when: { loud: 2 },
  readings: 'higher',
  shows: {
    'flat-tops': { below: 0.5, top: 0.4 },
    'which-socket': { fits: 0.9 },
    'gain-position': { down: 0.95 },
    'first-gain-down': { stays: 0.9 },
  },
  present: (view) => isHotPickup(view),
  evidence: (view) => {
    const pickup = pickupOf(view)
    if (!pickup || !isElectricSource(pickup) || pickup.gear.output === 'line')
      return [says('The strip does not begin with a pickup.', 0)]
    return isHotPickup(view)
      ? [says(`“${pickup.gear.name}” overdrives its input with the gain at its minimum.`, 30)]
      : [says(`The gain behind “${pickup.gear.name}” can still go down.`, 0.1)]
  },
  fixes: (view) => [...fixesOf(view, PICKUP_HOT), ...padIn(view), ...quieter(view)],
  byHand: 'Put the pad in, or turn the instrument down a little, or put a DI box with a pad between.',
  after: 'Set the gain again in the loudest passage.',
}

/** The pad of an input or a DI box. */
const padIn = (view: DiagnosisView) =>
  view.stages.flatMap((stage) =>
    'specs' in stage && 'pad' in stage.specs && stage.specs.pad > 0 && !stage.settings.pad
      ? [{ says: `Put the pad of “${stage.gear.name}” in.`, changes: [turn(view, stage.id, 'pad', true)] }]
      : [],
  )

/** The instrument’s own volume down by what is too much with the surge. */
function quieter(view: DiagnosisView) {
  const pickup = pickupOf(view)
  const over = Math.max(0, ...view.points.map(({ surgeHeadroom }) => -(surgeHeadroom ?? 0)))
  if (!isElectricSource(pickup) || over <= 0) return []
  // What clips first hides how far the next is over: a little more is tried where the first falls short.
  return [0, 3, 6, 10].map((more) => {
    const loss = Math.ceil(volumeLoss(pickup.specs) + over + 0.5 + more)
    return {
      says: `Turn the volume of “${pickup.gear.name}” down by ${loss} dB.`,
      changes: [{ do: 'volume' as const, gear: pickup.gear.id, loss }],
    }
  })
}

function isHotPickup(view: DiagnosisView): boolean {
  const pickup = pickupOf(view)
  const first = view.chain.controls[0]
  return (
    isElectricSource(pickup) &&
    pickup.gear.output !== 'line' &&
    found(view, PICKUP_HOT) !== undefined &&
    first !== undefined &&
    first.value <= first.range.gainMin + 0.5
  )
}

export const plugInOutput: Cause = {
  title: 'A plug-in’s output clips in the host',
  prior: 5,
  symptoms: { distortion: 0.9 },
  codes: ['limiter-works', 'stream-loudness'],
  shows: {
    'flat-tops': { top: 0.3, below: 0.5 },
    'bypass-plug-ins': { goes: 0.96 },
    'recorder-meter': { middle: 0.7, top: 0.3 },
  },
  present: (view) => overdriven(view, true).some(({ stage }) => isPlugIn(view, stage)) || has(view, 'limiter-works'),
  evidence: (view) => {
    const over = overdriven(view, true).filter(({ stage }) => isPlugIn(view, stage))
    if (over.length > 0) return over.map(({ message }) => says(message, 20))
    if (has(view, 'limiter-works')) return evidenceOf(view, ['limiter-works'], 8)
    return view.stages.some(({ id }) => isPlugIn(view, id))
      ? [says('No plug-in of this strip is overdriven, as the session has it.', 0.2)]
      : [says('The session has no plug-ins in this strip.', 0.5)]
  },
  fixes: (view) => fixesOf(view, [...STAGE, 'limiter-works', 'clips']),
  byHand: 'Turn the output of the plug-in down, or the level into it.',
  after: 'Look at the track’s meter behind it.',
}

const isPlugIn = (view: DiagnosisView, id: string) =>
  view.stages.some((stage) => stage.id === id && isProcessor(stage) && stage.gear.domain === 'digital')

export const offset: Cause = {
  title: 'A constant offset',
  prior: 2,
  symptoms: { crackle: 0.4, distortion: 0.3 },
  shows: { 'offset': { off: 0.97 }, 'flat-tops': { none: 0.7, below: 0.2 }, 'look-at-gaps': { none: 0.8, jump: 0.19 } },
  byHand:
    'Switch the low cut in, and have the device looked at: an offset takes headroom on one side and clicks at every cut.',
  after: 'Record silence and look at its mean.',
}
