import { isElectricSource, isInlinePreamp, isMicrophone, isProcessor, isSoundSource } from '../../gear'
import { volumeLoss } from '../../gear/electric-source/chain'
import { restingGain } from '../../chain/gain-control'
import { exchanged } from '../late-gain'
import { AUDIBLE_HISS } from '../symptom-shown'
import { asChange } from '../../plan/as-change'
import { formatDecimal } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import type { DiagnosisView } from '../view'
import { dB, electronicsSnr, evidenceOf, has, microphoneOf, percent, pickupOf, shareOf, turn } from './common'

/** Less hiss than that is not worth turning knobs for, dB (common practice, no source). */
const WORTH = 3

/** What the plan’s gains take off the electronics’ noise against the programme, dB. One gain alone makes a level, and none earlier. */
function quieterAsPlanned(view: DiagnosisView): number {
  const now = electronicsSnr(view)
  if (now === null || planOf(view).length < 2) return 0
  const then = view.all.asPlanned.strips.find(({ strip }) => strip.id === view.strip.id)
  return ((then && electronicsSnr(then)) ?? now) - now
}
const planOf = (view: DiagnosisView) => view.all.plan.filter(({ strip }) => strip === view.strip.id)

/** What gain made earlier takes off the hiss, as planned or as a hand could set it, dB. */
const lateBy = (view: DiagnosisView): number => Math.max(quieterAsPlanned(view), exchanged(view)?.quieter ?? 0)

const isLate = (view: DiagnosisView) => lateBy(view) >= WORTH

/** Gain made earlier at the level that there is. */
function earlierGain(view: DiagnosisView) {
  const exchange = exchanged(view)
  if (!exchange) return []
  const [first, ...later] = exchange.changes.map(
    ({ stage, to }) => `“${view.name(stage)}” to ${formatDecimal(Number(to), 1)} dB`,
  )
  return [{ says: `Turn ${later.join(' and ')}, then ${first}.`, changes: exchange.changes }]
}
const asPlanned = (view: DiagnosisView) => {
  const own = planOf(view)
  return own.length === 0
    ? []
    : [
        {
          says: `Distribute the gain again: ${own.map(({ stage, from, to }) => `“${view.name(stage)}” from ${formatDecimal(from, 1)} to ${formatDecimal(to, 1)} dB`).join(', ')}.`,
          changes: own.map(asChange),
        },
      ]
}

const roomShare = (view: DiagnosisView) => shareOf(view, ({ name }) => name === 'room')
const preampShare = (view: DiagnosisView) => shareOf(view, ({ name }) => name === 'preamp' || name === 'thermal')

/**
 * The first gain behind the source where it stands within 3 dB of the end of its range. An output turned up behind it is another
 * matter.
 */
const atEnd = (view: DiagnosisView) =>
  view.chain.controls
    .filter(({ isFader, isSystemSlider, domain }) => !isFader && !isSystemSlider && domain === 'analogue')
    .slice(0, 1)
    .filter(({ value, range }) => value >= range.gainMax - 3)
const passive = (view: DiagnosisView) => {
  const microphone = microphoneOf(view)
  return isMicrophone(microphone) && microphone.gear.principle !== 'condenser' ? microphone : null
}
const boosted = ({ stages }: DiagnosisView) => stages.some((each) => isInlinePreamp(each))
const lacksBooster = (view: DiagnosisView) => passive(view) !== null && !boosted(view) && atEnd(view).length > 0

const dynamics = ({ stages }: DiagnosisView, type: 'compressor' | 'expander') =>
  stages.flatMap((stage) =>
    isProcessor(stage)
      ? stage.gear.blocks.flatMap((block, section) =>
          block.on && block.type === type ? [{ gear: stage.gear, stage: stage.id, block, section }] : [],
        )
      : [],
  )

/** What compressors take off the programme, dB; pauses come up by as much against it. */
export const reductionOf = ({ points }: DiagnosisView): number =>
  points.reduce((sum, { reduction }) => sum + Math.max(0, reduction?.average ?? 0), 0)

const bypass = (view: DiagnosisView, type: 'compressor' | 'expander') =>
  dynamics(view, type).map(({ gear, section }) => ({
    says: `Switch the ${type === 'compressor' ? 'compressor' : 'gate'} of “${gear.name}” out.`,
    changes: [{ do: 'section' as const, gear: gear.id, section, on: false }],
  }))

const slider = (view: DiagnosisView) => view.chain.controls.find(({ isSystemSlider }) => isSystemSlider)

/** Too much of the gain is late in the chain. */
export const lateGain: Cause = {
  title: 'Too much of the gain is late in the chain',
  prior: 10,
  symptoms: { hiss: 0.9, distortion: 0.05 },
  codes: ['past-crossover'],
  shows: {
    'floor-as-planned': { higher: 0.3, planned: 0.69 },
    'follow-hiss': { late: 0.85, first: 0.05 },
    'gain-position': { middle: 0.7, down: 0.25 },
  },
  present: isLate,
  evidence: (view) => {
    const gained = lateBy(view)
    if (gained >= WORTH) return [says(`With the gain made earlier the hiss is ${dB(gained)} lower.`, 20)]
    return view.chain.controls.filter(({ isFader }) => !isFader).length < 2
      ? [says('There is one gain only: none can be too late.', 0)]
      : [says('No sharing of the gain makes the hiss quieter.', 0.1)]
  },
  fixes: (view) => [...asPlanned(view), ...earlierGain(view)],
  byHand: 'Turn the first gain up as far as its headroom allows, and the later ones down by as much.',
  after: 'Read the recorder’s meter again in the loudest passage; the first stage may not reach its top.',
  caution: 'Headphones and loudspeakers down while gains are moved.',
}

/** An instrument’s volume is down. */
export const sourceDown: Cause = {
  title: 'The source or its pickup is turned down',
  prior: 8,
  symptoms: { 'hiss': 0.6, 'too-quiet': 0.6, 'thin': 0.2 },
  codes: ['volume-down'],
  readings: 'lower',
  shows: { 'source-volume': { down: 0.95 }, 'follow-hiss': { first: 0.8 } },
  present: (view) => has(view, 'volume-down'),
  evidence: (view) => {
    const pickup = pickupOf(view)
    if (!pickup) return [says('The strip begins with no instrument on a cable.', 0.05)]
    return has(view, 'volume-down')
      ? evidenceOf(view, ['volume-down'], 20)
      : [says(`The own volume of “${pickup.gear.name}” is up, as the session has it.`, 0.3)]
  },
  fixes: (view) => {
    const pickup = pickupOf(view)
    const loss = isElectricSource(pickup) ? volumeLoss(pickup.specs) : 0
    if (!pickup || loss === 0) return []
    const up = { do: 'volume' as const, gear: pickup.gear.id, loss: 0 }
    const control = view.chain.controls.find(({ isFader, locked }) => !isFader && !locked)
    const less = control && Math.max(control.range.gainMin, control.value - Math.ceil(loss))
    return control && less !== undefined
      ? [
          {
            says: `Turn the gain of “${view.name(control.stage)}” down to ${formatDecimal(less, 1)} dB, then the volume of “${pickup.gear.name}” fully up.`,
            changes: [turn(view, control.stage, control.setting, less), up],
          },
          { says: `Turn the volume of “${pickup.gear.name}” fully up.`, changes: [up] },
        ]
      : []
  },
  byHand: 'Turn the gain behind it down, then its own volume fully up, and set the gain again.',
  after: 'Read the input’s meter again in the loudest passage.',
  caution: 'Gain down before the source is turned up.',
}

export const preampNearEnd: Cause = {
  title: 'The preamp works near the end of its gain',
  prior: 6,
  symptoms: { 'hiss': 0.7, 'too-quiet': 0.3 },
  codes: ['gain-range-exhausted'],
  shows: { 'gain-position': { end: 0.9 }, 'follow-hiss': { first: 0.9 } },
  present: (view) => atEnd(view).length > 0 && !lacksBooster(view),
  evidence: (view) => {
    const [end] = atEnd(view)
    if (!end)
      return view.chain.controls.length === 0
        ? [says('There is no gain in this strip.', 0)]
        : [says('The first gain is not near the end of its range.', 0.05)]
    return [
      says(
        `“${view.name(end.stage)}” is at ${formatDecimal(end.value, 1)} of ${formatDecimal(end.range.gainMax, 1)} dB, and amplifiers make ${percent(preampShare(view))} of the noise.`,
        lacksBooster(view) ? 2 : 10,
      ),
    ]
  },
  fixes: (view) => nearerFixes(view),
  byHand: 'Go closer, use a more sensitive microphone, or put a quiet preamp before it; then turn this gain down.',
  after: 'Set the gain again to the target, and listen to a pause.',
}

/** Nearer than that a microphone is at the mouth, m (common practice, no source). */
const CLOSEST = 0.05

/** Half, a third, a quarter of the distance, and as much less gain. */
export function nearerFixes(view: DiagnosisView) {
  const from = view.stages[0]
  const control = view.chain.controls.find(({ isFader, locked }) => !isFader && !locked)
  if (!isSoundSource(from) || !control) return []
  return [2, 3, 4].flatMap((times) => {
    const distance = Math.round((100 * from.distance) / times) / 100
    const less = Math.ceil(20 * Math.log10(from.distance / distance))
    if (distance < CLOSEST) return []
    const to = Math.max(control.range.gainMin, control.value - less)
    return [
      {
        says: `Go closer: ${formatDecimal(distance, 2)} m instead of ${formatDecimal(from.distance, 2)} m, and the gain of “${view.name(control.stage)}” down to ${formatDecimal(to, 1)} dB.`,
        changes: [turn(view, from.id, 'distance', distance), turn(view, control.stage, control.setting, to)],
      },
    ]
  })
}

export const noBooster: Cause = {
  title: 'A passive microphone without an inline preamp',
  prior: 6,
  symptoms: { 'hiss': 0.6, 'too-quiet': 0.6 },
  readings: 'lower',
  shows: { 'gain-position': { end: 0.9 }, 'follow-hiss': { first: 0.9 }, 'measure-distance': { planned: 0.95 } },
  present: lacksBooster,
  evidence: (view) => {
    const microphone = passive(view)
    if (!microphone) return [says('There is no passive microphone in this strip.', 0)]
    if (boosted(view)) return [says('There is an inline preamp behind it already.', 0)]
    return atEnd(view).length > 0
      ? [says(`“${microphone.gear.name}” gives little, and the gain behind it is at its end.`, 12)]
      : [says(`“${microphone.gear.name}” is passive, and the gain behind it has room left.`, 0.4)]
  },
  fixes: (view) => boosterFixes(view),
  byHand: 'Put an inline preamp behind the microphone, or go closer; then turn the gain down by as much.',
  after: 'Set the gain again to the target; see that 48 V reaches the inline preamp.',
  caution:
    'An inline preamp takes 48 V: outputs muted, gain down, switch it on, wait. Never with a ribbon behind a cable that could short its pins.',
}

/** An inline preamp as findings would put it, and nearer. */
function boosterFixes(view: DiagnosisView) {
  const gain = view.findings.find(({ code }) => code === 'gain-range-exhausted' || code === 'target-missed')
  return [...(gain?.changes ? [{ says: gain.action, changes: gain.changes }] : []), ...nearerFixes(view)]
}

export const systemSliderUp: Cause = {
  title: 'The system’s slider is above 0 dB',
  prior: 5,
  symptoms: { hiss: 0.5, distortion: 0.5 },
  codes: ['gain-behind-converter'],
  shows: {
    'floor-as-planned': { higher: 0.5, planned: 0.49 },
    'system-slider': { up: 0.95 },
    'follow-hiss': { slider: 0.85 },
    'recorder-meter': { top: 0.4, middle: 0.55 },
  },
  present: (view) => (slider(view)?.value ?? 0) > 0,
  evidence: (view) => {
    const own = slider(view)
    if (!own) return [says('The session has no system slider in this strip.', 0.5)]
    return own.value > 0
      ? [
          says(
            `“${view.name(own.stage)}” adds ${dB(own.value)} behind the converter: noise and clipping come up with it.`,
            15,
          ),
        ]
      : [says(`“${view.name(own.stage)}” is not above 0 dB.`, 0.05)]
  },
  fixes: (view) => sliderFixes(view),
  byHand: 'Set the slider to 0 dB, and make the level with the gain before the converter.',
  after: 'Set the gain again: the recorder’s meter now reads differently.',
}

/** The slider at 0 dB. */
export function sliderFixes(view: DiagnosisView) {
  const own = slider(view)
  if (!own) return []
  const rest = restingGain(own)
  return [
    {
      says: `Set “${view.name(own.stage)}” to ${formatDecimal(rest, 1)} dB.`,
      changes: [turn(view, own.stage, own.setting, rest)],
    },
  ]
}
export const systemSlider = slider

export const compressorLifts: Cause = {
  title: 'A compressor lifts the pauses',
  prior: 6,
  symptoms: { 'hiss': 0.6, 'level-drifts': 0.5 },
  shows: {
    'bypass-dynamics': { changes: 0.95 },
    'follow-hiss': { late: 0.3, first: 0.4 },
    // Whatever noise there is comes up, the room’s too.
    'cover-microphone': { goes: 0.4 },
  },
  present: (view) => dynamics(view, 'compressor').length > 0 && reductionOf(view) >= WORTH,
  evidence: (view) => {
    if (dynamics(view, 'compressor').length === 0)
      return [says('There is no compressor in this strip, as the session has it.', 0.15)]
    const taken = reductionOf(view)
    return taken >= WORTH
      ? [says(`Compression takes ${dB(taken)} off the programme: pauses come up by as much against it.`, 10)]
      : [says(`The compressor takes off ${dB(taken)} only.`, 0.3)]
  },
  fixes: (view) => bypass(view, 'compressor'),
  byHand: 'Raise the threshold or lower the ratio until the pauses stay down, or compress after the recording.',
  after: 'Look at the peaks behind it: they are no longer held back.',
  caution: 'Monitors down first: peaks are no longer held back.',
}

export const gateWorks: Cause = {
  title: 'A gate or expander cuts words and tails',
  prior: 4,
  symptoms: { 'level-drifts': 0.7 },
  shows: { 'bypass-dynamics': { changes: 0.95 } },
  present: (view) => dynamics(view, 'expander').length > 0,
  evidence: (view) => {
    const [gate] = dynamics(view, 'expander')
    if (!gate || gate.block.type !== 'expander')
      return [says('There is no gate in this strip, as the session has it.', 0.15)]
    return [
      says(
        `“${gate.gear.name}” has a gate at ${formatDecimal(gate.block.threshold, 0)} dB: what is under it goes down.`,
        8,
      ),
    ]
  },
  fixes: (view) => bypass(view, 'expander'),
  byHand: 'Lower the gate’s threshold, or switch it out for the recording.',
  after: 'Listen to the pauses: the floor is heard again.',
}

export const roomNoise: Cause = {
  title: 'The noise of the room',
  prior: 10,
  symptoms: { hiss: 0.8, hum: 0.03 },
  codes: ['electronics-only'],
  shows: { 'cover-microphone': { goes: 0.95 }, 'follow-hiss': { first: 0.95 } },
  present: (view) => microphoneOf(view) !== undefined && roomShare(view) > 0.5 && (endSnr(view) ?? 99) < AUDIBLE_HISS,
  evidence: (view) => {
    if (!microphoneOf(view)) return [says('There is no microphone that could hear the room.', 0)]
    const share = roomShare(view)
    if (view.session.room.ambient === undefined && !view.session.room.measured?.ambient)
      return [says('The room’s noise is not known.', 1)]
    return [says(`The room makes ${percent(share)} of the noise.`, share > 0.5 ? 2 + 20 * (share - 0.5) : 0.1 + share)]
  },
  fixes: nearerFixes,
  byHand: 'Go closer, find what makes the noise and switch it off, or hang heavy curtains around the place.',
  after: 'Set the gain again for the new distance.',
}
const endSnr = ({ points }: DiagnosisView) => points.at(-1)?.snr ?? null
