import { isDigitalInput, isInterface } from '../../gear'
import { formatDecimal } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import type { DiagnosisView } from '../view'
import { evidenceOf, found, has, fixesOf, turn } from './common'

const PHANTOM = ['phantom-missing'] as const
const needsPhantom = ({ chain }: DiagnosisView) => chain.own.find(({ attitude }) => attitude === 'needed')

export const phantomMissing: Cause = {
  title: '48 V is missing',
  prior: 10,
  symptoms: { 'nothing': 0.8, 'too-quiet': 0.15 },
  when: { changed: 1.5 },
  codes: ['phantom-missing'],
  readings: 'lower',
  shows: { 'phantom-lamp': { off: 0.98 }, 'where-it-dies': { input: 0.95 } },
  present: (view) => has(view, ...PHANTOM),
  evidence: (view) => {
    const use = needsPhantom(view)
    if (!use) return [says('Nothing in this strip needs 48 V.', 0)]
    if (has(view, 'mic-into-line'))
      return [says('A line input gives no 48 V: the microphone is in the wrong input.', 1)]
    return has(view, ...PHANTOM)
      ? evidenceOf(view, PHANTOM, 40)
      : [says(`48 V is on for “${use.user.gear.name}”, as the session has it.`, 0.1)]
  },
  fixes: (view) => fixesOf(view, PHANTOM),
  byHand: 'Mute the outputs, turn the gain down, switch 48 V on, and wait half a minute before opening.',
  // Where the switch also feeds what it would harm, the finding says the way out.
  byHandIn: (view) => found(view, PHANTOM)?.action ?? phantomMissing.byHand,
  after: 'Read the input’s meter with somebody speaking.',
  caution:
    'Outputs muted first. Nothing on the same switch that it can harm: old ribbons, unbalanced outputs, some receivers and players.',
}

const HARM = ['phantom-harmful', 'phantom-neighbour'] as const
const harmed = ({ chain }: DiagnosisView) => chain.own.some(({ attitude }) => attitude === 'harmful')

export const phantomOnHarmed: Cause = {
  title: '48 V reaches something it can harm',
  prior: 3,
  symptoms: { 'nothing': 0.4, 'distortion': 0.3, 'hum': 0.2, 'thin': 0.3, 'too-quiet': 0.3, 'hiss': 0.1 },
  when: { changed: 2 },
  codes: [...HARM, 'phantom-unneeded'],
  shows: { 'phantom-lamp': { harmful: 0.98 }, 'where-it-dies': { input: 0.9 } },
  present: (view) => stops(view, HARM).length > 0,
  evidence: (view) => {
    if (stops(view, HARM).length > 0) return evidenceOf(view, HARM, 40)
    return harmed(view)
      ? [says('48 V is off, as the session has it.', 0.1)]
      : [says('Nothing in this strip can be harmed by 48 V.', 0)]
  },
  fixes: (view) => fixesOf(view, HARM),
  byHand:
    'Mute the outputs, switch 48 V off, and wait before anything is unplugged. Then have the microphone checked before it is used again.',
  after: 'Listen to the microphone against another one: a ribbon that was harmed sounds dull or weak.',
  caution: 'Outputs muted first. Nothing is plugged or unplugged while 48 V is on.',
}
const stops = ({ findings }: DiagnosisView, codes: readonly string[]) =>
  findings.filter(({ code, severity }) => codes.includes(code) && severity === 'stop')

export const muted: Cause = {
  title: 'Something is muted',
  prior: 9,
  symptoms: { nothing: 0.9 },
  when: { changed: 1.5 },
  readings: 'lower',
  shows: { 'mute-switches': { muted: 0.97 }, 'where-it-dies': { input: 0.4, host: 0.4, ears: 0.2 } },
  byHand: 'Open it: the switch on the microphone, the channel’s mute, the track’s mute, somebody else’s solo.',
  after: 'Volume down first, then read the meters from the source on.',
  caution: 'Monitors down before a mute is opened.',
}

/** Gains that stand at the very bottom, where the plan has them higher. */
function downGains(view: DiagnosisView) {
  return view.chain.controls.flatMap((control) => {
    const planned = view.all.plan.find(
      ({ stage, setting, strip }) => strip === view.strip.id && stage === control.stage && setting === control.setting,
    )
    const to = control.isFader && control.range.gainMin < -20 && control.value < -40 ? 0 : planned?.to
    return to !== undefined && control.value <= control.range.gainMin + 1 && to - control.value > 20
      ? [{ control, to }]
      : []
  })
}

export const gainDown: Cause = {
  title: 'A gain or fader is fully down',
  prior: 8,
  symptoms: { 'nothing': 0.7, 'too-quiet': 0.5, 'hiss': 0.05 },
  codes: ['target-missed'],
  readings: 'lower',
  shows: { 'gain-position': { down: 0.97 }, 'where-it-dies': { input: 0.7, host: 0.2, ears: 0.1 } },
  present: (view) => downGains(view).length > 0,
  evidence: (view) => {
    const [down] = downGains(view)
    if (down)
      return [
        says(
          `“${view.name(down.control.stage)}” is at ${formatDecimal(down.control.value, 1)} dB, its minimum; the plan has it ${formatDecimal(down.to - down.control.value, 0)} dB higher.`,
          15,
        ),
      ]
    return view.chain.controls.length > 0
      ? [says('No gain is fully down, as the session has it.', 0.2)]
      : [says('There is no gain in this strip.', 0.02)]
  },
  fixes: (view) =>
    downGains(view).map(({ control, to }) => ({
      says: `Turn the ${control.setting} of “${view.name(control.stage)}” up to ${formatDecimal(to, 1)} dB, slowly.`,
      changes: [turn(view, control.stage, control.setting, to)],
    })),
  byHand: 'Turn it up slowly while somebody plays, and watch the next meter.',
  after: 'Set it to the target in the loudest passage.',
  caution: 'Monitors down, then turn it up slowly: what is plugged in may be loud.',
}

export const wrongInput: Cause = {
  title: 'The wrong input, or channels shifted over a link',
  prior: 7,
  symptoms: { nothing: 0.85 },
  codes: ['input-shared'],
  readings: 'lower',
  shows: { 'other-input': { elsewhere: 0.96 }, 'where-it-dies': { input: 0.6, host: 0.4 } },
  present: (view) => has(view, 'input-shared'),
  evidence: (view) => {
    if (has(view, 'input-shared')) return evidenceOf(view, ['input-shared'], 12)
    const units = new Set(
      view.all.strips.flatMap(({ stages }) =>
        stages.flatMap((stage) => (isInterface(stage) || isDigitalInput(stage) ? [stage.gear.id] : [])),
      ),
    )
    return units.size > 1
      ? [says('Two units meet in one host: the second one’s inputs count on from the first’s.', 3)]
      : []
  },
  fixes: (view) => fixesOf(view, ['input-shared']),
  byHand:
    'Choose the input that moves; where a link shifts the numbers, write the recorder’s number beside the device’s.',
  after: 'Tap each microphone once, and see that its own track moves.',
}

export const trackNotArmed: Cause = {
  title: 'The track is not armed, or is set to another input',
  prior: 8,
  symptoms: { nothing: 0.9 },
  shows: { 'track-armed': { not: 0.97 }, 'where-it-dies': { host: 0.96 } },
  byHand: 'Arm the track and choose its input.',
  after: 'Watch the track’s meter, not only the unit’s.',
}

export const outputElsewhere: Cause = {
  title: 'The headphones or loudspeakers are connected to another output',
  prior: 6,
  symptoms: { 'nothing': 0.8, 'one-side': 0.1 },
  shows: { 'output-socket': { other: 0.96 }, 'where-it-dies': { ears: 0.97 } },
  evidence: (view) => {
    const outputs = view.all.unit?.outputs.length ?? 0
    if (view.monitor && view.all.unit && outputs > 0 && !view.monitor.output)
      return [says(`No output of “${view.all.unit.name}” is named for this strip’s performer.`, 2)]
    return outputs > 1 ? [says(`The unit has ${outputs} outputs.`, 1.2)] : []
  },
  byHand: 'Plug them into the output that the host plays to, or choose that output in the host.',
  after: 'Start from low, and turn up slowly.',
  caution: 'Volume down while plugs are moved; amplifiers on last, off first.',
}

export const deviceHeld: Cause = {
  title: 'The device is taken by another program, or not chosen',
  prior: 7,
  symptoms: { 'nothing': 0.8, 'not-seen': 0.3 },
  shows: {
    'device-chosen': { taken: 0.97 },
    'where-it-dies': { host: 0.9 },
    'which-driver': { exclusive: 0.6, generic: 0.3 },
  },
  byHand: 'Close the program that uses it, choose the unit in the host, and restart the host.',
  after: 'Look at the rate and buffer: another program may have changed them.',
}

export const loudspeakersDown: Cause = {
  title: 'The headphones’ or loudspeakers’ own volume is down, or they are off',
  prior: 6,
  symptoms: { 'nothing': 0.8, 'too-quiet': 0.2, 'one-side': 0.05 },
  shows: { 'speaker-volume': { down: 0.97 }, 'where-it-dies': { ears: 0.97 } },
  evidence: (view) => {
    const volume = view.strip.monitor.volume
    return volume !== undefined && volume < -60
      ? [says(`The headphone volume is at ${formatDecimal(volume, 0)} dB, as the session has it.`, 5)]
      : []
  },
  byHand:
    'Volume fully down, switch on (amplifiers and active loudspeakers last), then turn up slowly with the sound playing.',
  after: 'See that the level at the ears is below 85 dBA.',
  caution: 'Amplifiers and active loudspeakers on last, off first; turn up slowly, from the bottom.',
}
