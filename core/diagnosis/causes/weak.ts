import { isElectricSource, isPad, isSoundSource } from '../../gear'
import { inputClass } from '../../chain/level-class'
import { formatDecimal, formatSigned } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import type { DiagnosisView } from '../view'
import { dB, evidenceOf, has, fixesOf, microphoneOf, turn } from './common'
import { nearerFixes, sliderFixes, systemSlider } from './hiss'

/** Pads that are switched in, or stand in the line. */
const padsIn = ({ stages }: DiagnosisView) =>
  stages.filter((stage) => stage.settings.pad === true || (isPad(stage) && stage.specs.loss > 0))
/** How far the target is missed downwards, dB. */
const isShort = (view: DiagnosisView) => has(view, 'target-missed', 'gain-range-exhausted') && under(view)
const under = (view: DiagnosisView) => {
  const point = view.chain.place && view.points[view.chain.place.index]
  return point !== null && point !== undefined && point.peak < view.chain.target.low
}

export const padIn: Cause = {
  title: 'A pad is on',
  prior: 8,
  symptoms: { 'too-quiet': 0.9, 'hiss': 0.3 },
  codes: ['pad-not-needed'],
  readings: 'lower',
  shows: { pads: { in: 0.97 } },
  present: (view) => padsIn(view).length > 0 && (has(view, 'pad-not-needed') || isShort(view)),
  evidence: (view) => {
    const [pad] = padsIn(view)
    if (!pad) return [says('No pad is in, as the session has it.', 0.15)]
    return has(view, 'pad-not-needed')
      ? evidenceOf(view, ['pad-not-needed'], 12)
      : [says(`The pad of “${pad.gear.name}” is in.`, isShort(view) ? 12 : 2)]
  },
  fixes: (view) => [
    ...fixesOf(view, ['pad-not-needed']),
    ...padsIn(view).flatMap((pad) =>
      pad.settings.pad
        ? [{ says: `Take the pad of “${pad.gear.name}” out.`, changes: [turn(view, pad.id, 'pad', false)] }]
        : [],
    ),
  ],
  byHand: 'Gain down, take the pad out, and set the gain again.',
  after: 'Watch the meter in the loudest passage: nothing may clip without the pad.',
  caution: 'Gain down before a pad is taken out.',
}

export const tooFar: Cause = {
  title: 'The microphone is too far away',
  prior: 8,
  symptoms: { 'too-quiet': 0.8, 'hiss': 0.4, 'thin': 0.1 },
  readings: 'lower',
  shows: { 'measure-distance': { farther: 0.9 }, 'cover-microphone': { goes: 0.5 } },
  present: (view) => isFar(view),
  evidence: (view) => {
    const from = view.stages[0]
    if (!isSoundSource(from)) return [says('The strip starts with an electrical source.', 0)]
    const { distance } = from
    return [
      says(
        `The microphone is ${formatDecimal(distance, 2)} m away; half of that would be 6 dB more.`,
        isFar(view) ? 10 : distance > 1 ? 1 : 0.2,
      ),
    ]
  },
  fixes: (view) => [
    ...fixesOf(view, ['gain-range-exhausted', 'target-missed']).filter(({ says: words }) => /closer/i.test(words)),
    ...nearer(view),
  ],
  byHand: 'Go closer: half the distance is 6 dB more, against the room as well.',
  after: 'Set the gain again, and listen for breath and bass that come up nearby.',
}
/** Farther away than its sound was measured at, and by enough, m (common practice, no source). */
const FAR = 2
const isFar = (view: DiagnosisView) => {
  const from = view.stages[0]
  return isSoundSource(from) && microphoneOf(view) !== undefined && from.distance >= FAR
}
function nearer(view: DiagnosisView) {
  const from = view.stages[0]
  if (!isSoundSource(from)) return []
  const plain = [1, 0.7, 0.5].map((distance) => ({
    says: `Go closer: ${formatDecimal(distance, 2)} m instead of ${formatDecimal(from.distance, 2)} m.`,
    changes: [turn(view, from.id, 'distance', distance)],
  }))
  return from.distance > 1 ? [...plain, ...nearerFixes(view)] : nearerFixes(view)
}

const WEAK = ['mic-into-line'] as const

export const wrongType: Cause = {
  title: 'A microphone in a line input',
  prior: 6,
  symptoms: { 'too-quiet': 0.9, 'nothing': 0.3, 'hiss': 0.3 },
  codes: [...WEAK, 'connector'],
  readings: 'lower',
  shows: { 'which-socket': { cold: 0.97 }, 'gain-position': { end: 0.6 } },
  present: (view) => has(view, ...WEAK),
  evidence: (view) =>
    has(view, ...WEAK)
      ? evidenceOf(view, WEAK, 25)
      : [says('The level classes of all connections fit, as the session has them.', 0.15)],
  fixes: (view) => fixesOf(view, WEAK),
  byHand: 'Move the plug to a microphone input, or put a preamp between.',
  after: 'Set the gain again, from its minimum; 48 V where the microphone needs it.',
  caution: 'Gain down and monitors muted before plugs are moved and before 48 V is switched on.',
}

/** −10 dBV and +4 dBu in dBu, and what lies in the middle (level references: −10 dBV = 0.3162 V, 0 dBu = 0.7746 V). */
const CONSUMER = 20 * Math.log10(10 ** (-10 / 20) / Math.sqrt(0.6))
const PROFESSIONAL = 4
const BETWEEN = (CONSUMER + PROFESSIONAL) / 2

/** A source at consumer level that goes straight into a line input. */
const consumerOf = (view: DiagnosisView) => {
  const [source, next] = view.stages
  const isLine = next !== undefined && inputClass(next) === 'line'
  return isElectricSource(source) && source.gear.output === 'line' && isLine && source.specs.level < BETWEEN
    ? source
    : null
}

export const consumerLevel: Cause = {
  title: 'A consumer output (−10 dBV) in a professional input (+4 dBu)',
  prior: 5,
  symptoms: { 'too-quiet': 0.85, 'hiss': 0.3 },
  readings: 'lower',
  shows: { 'which-socket': { fits: 0.6, cold: 0.35 }, 'gain-position': { end: 0.6 }, 'pads': { out: 0.95 } },
  present: (view) => consumerOf(view) !== null && isShort(view),
  evidence: (view) => {
    const source = view.stages[0]
    if (!isElectricSource(source) || source.gear.output !== 'line')
      return [says('The strip does not begin with a line output.', 0)]
    const own = consumerOf(view)
    if (!own) return [says(`“${source.gear.name}” gives line level, as the input expects, as the session has it.`, 0.3)]
    const less = PROFESSIONAL - own.specs.level
    return [
      says(
        `“${own.gear.name}” gives ${formatSigned(own.specs.level, 1)} dBu, ${dB(less)} under +4 dBu.`,
        isShort(view) ? 15 : 2,
      ),
    ]
  },
  fixes: (view) => fixesOf(view, ['gain-range-exhausted', 'target-missed']),
  byHand:
    'Set the input to −10 dBV where it has that switch, else turn its gain up by 12 dB, or put a line amplifier between.',
  after: 'Watch the meter in the loudest passage.',
  caution: 'Monitors down first: it gets louder.',
}

export const sliderDown: Cause = {
  title: 'A slider behind the converter is down',
  prior: 6,
  symptoms: { 'too-quiet': 0.8, 'nothing': 0.2 },
  readings: 'lower',
  shows: { 'system-slider': { down: 0.96 } },
  present: (view) => (systemSlider(view)?.value ?? 0) < 0,
  evidence: (view) => {
    const own = systemSlider(view)
    if (!own) return [says('The session has no system slider in this strip.', 0.5)]
    return own.value < 0
      ? [says(`“${view.name(own.stage)}” takes ${dB(own.value)} off behind the converter.`, 15)]
      : [says(`“${view.name(own.stage)}” is not below 0 dB.`, 0.05)]
  },
  fixes: (view) => sliderFixes(view),
  byHand: 'Set the slider to 0 dB, and make the level with the gain before the converter.',
  after: 'Watch the recorder’s meter: it reads more now.',
  caution: 'Monitors down first: it gets louder.',
}
