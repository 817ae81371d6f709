import type { FindingCode } from './finding-titles'
import { findingTitles } from './finding-titles'

/** What stands behind a finding: what it is called, what brings it about, by which rule it is found, and where that is from. */
export interface FindingFacts {
  /** In a few words: in a list, and for undoing its fix. */
  readonly title: string
  readonly cause: string
  readonly rule: string
  readonly source: string
}

const COMMON = 'common practice, no source'
const DEFINITION = 'definition'

/** Every finding there is. docs/findings.md is made from this table. */
export const findingCodes = {
  'clips': {
    title: findingTitles['clips'],
    cause: 'The level at the converter passes 0 dBFS at the rehearsed peak.',
    rule: 'Headroom at the converter under 0 dB.',
    source: 'AES17: a sine whose peak touches full scale is 0 dBFS',
  },
  'surge-clips': {
    title: findingTitles['surge-clips'],
    cause: 'The take gets louder than the rehearsal, and the headroom above the rehearsed peak is smaller than that.',
    rule: 'Headroom at the converter, less the surge, under 0 dB.',
    source: DEFINITION,
  },
  'target-missed': {
    title: findingTitles['target-missed'],
    cause: 'The gain was set for another target.',
    rule: 'What the convention reads lies outside its window at the converter, or at the desk’s meter.',
    source: `the conventions are ${COMMON}`,
  },
  'little-headroom': {
    title: findingTitles['little-headroom'],
    cause: 'The chosen convention works close to full scale, or the surge is large.',
    rule: 'Under 6 dB above the peak with the surge.',
    source: COMMON,
  },
  'gain-range-exhausted': {
    title: findingTitles['gain-range-exhausted'],
    cause: 'The source is too quiet or too loud for this input at this distance.',
    rule: 'The gain that the target wants lies outside the range.',
    source: DEFINITION,
  },
  'overdriven': {
    title: findingTitles['overdriven'],
    cause: 'A gain before it is too high; what is turned down behind it only makes the distortion quieter.',
    rule: 'The rehearsed peak passes the stage’s maximum input or output level, each at its own place.',
    source: DEFINITION,
  },
  'surge-overdrives': {
    title: findingTitles['surge-overdrives'],
    cause: 'The stage has room for the rehearsal and not for the surge.',
    rule: 'The peak with the surge passes the stage’s maximum input or output level.',
    source: DEFINITION,
  },
  'driven': {
    title: findingTitles['driven'],
    cause: 'It was marked so.',
    rule: 'Marked, and its ceiling is passed.',
    source: DEFINITION,
  },
  'capsule-overload': {
    title: findingTitles['capsule-overload'],
    cause: 'The source is too loud at this distance for this microphone.',
    rule: 'The rehearsed peak at the capsule passes the maximum SPL.',
    source: 'makers’ statement of the maximum SPL for a sine',
  },
  'capsule-overload-surge': {
    title: findingTitles['capsule-overload-surge'],
    cause: 'The same, in the take’s loudest moment.',
    rule: 'The peak with the surge at the capsule passes the maximum SPL.',
    source: 'as above',
  },
  'phantom-missing': {
    title: findingTitles['phantom-missing'],
    cause: 'Something that needs 48 V gets none: switched off, not to be had at this input, or blocked on the way.',
    rule: '48 V comes from the first active device behind it, through XLR only, and passes no inline preamp.',
    source: 'IEC 61938 P48',
  },
  'phantom-harmful': {
    title: findingTitles['phantom-harmful'],
    cause: '48 V is on for something that it can damage.',
    rule: 'On at the first active device behind it.',
    source: 'IEC 61938; makers’ warnings',
  },
  'phantom-neighbour': {
    title: findingTitles['phantom-neighbour'],
    cause: 'Inputs of one bank share a switch.',
    rule: 'Another strip is on the same bank.',
    source: COMMON,
  },
  'phantom-unneeded': {
    title: findingTitles['phantom-unneeded'],
    cause: '48 V is on, and nothing on its switch needs it.',
    rule: 'Only what needs phantom power should get it.',
    source: COMMON,
  },
  'input-shared': {
    title: findingTitles['input-shared'],
    cause: 'A strip was copied, or the wrong input chosen.',
    rule: 'Two strips name the same input of the same unit.',
    source: DEFINITION,
  },
  'line-into-instrument': {
    title: findingTitles['line-into-instrument'],
    cause: 'The wrong input: an instrument input expects about a tenth of line level.',
    rule: 'Level classes of the two ends.',
    source: COMMON,
  },
  'line-into-mic': {
    title: findingTitles['line-into-mic'],
    cause: 'The wrong input: a microphone input expects some 40 dB less.',
    rule: 'Level classes of the two ends.',
    source: COMMON,
  },
  'double-preamp': {
    title: findingTitles['double-preamp'],
    cause: 'A preamp’s line output goes into a microphone input.',
    rule: 'Level classes of the two ends.',
    source: COMMON,
  },
  'mic-into-line': {
    title: findingTitles['mic-into-line'],
    cause: 'The wrong input, or a preamp is missing.',
    rule: 'Level classes of the two ends.',
    source: COMMON,
  },
  'instrument-into-mic': {
    title: findingTitles['instrument-into-mic'],
    cause: 'The wrong input: the load is far too low for a pickup.',
    rule: 'Level classes of the two ends.',
    source: COMMON,
  },
  'loading': {
    title: findingTitles['loading'],
    cause: 'The input impedance is too low for what is plugged in.',
    rule: 'Load under 5 times the source impedance. For a pickup: under 1.5 times, or 6 dB lost at 5 kHz by its coil. The bridging rule is 10 times.',
    source: `voltage divider; the limits are ${COMMON}`,
  },
  'treble-in-lead': {
    title: findingTitles['treble-in-lead'],
    cause: 'A long cable and the pickup’s coil make a low-pass together.',
    rule: 'The cable takes 6 dB or more at 5 kHz, by coil, volume control, cable and input as one circuit.',
    source: `network theory; the limit is ${COMMON}`,
  },
  'connector': {
    title: findingTitles['connector'],
    cause: 'The plugs at the two ends of this connection differ.',
    rule: 'Connectors of the two ends.',
    source: DEFINITION,
  },
  'unbalanced': {
    title: findingTitles['unbalanced'],
    cause: 'One of two driven legs is used.',
    rule: 'A driven balanced output meets an unbalanced input: −20 lg 2.',
    source: 'voltage',
  },
  'pad-not-needed': {
    title: findingTitles['pad-not-needed'],
    cause: 'The pad takes off what the gain adds again, together with the preamp’s noise.',
    rule: 'The same level can be had with the pad out.',
    source: 'a pad before the preamp',
  },
  'gain-behind-converter': {
    title: findingTitles['gain-behind-converter'],
    cause: 'The operating system’s slider is not at 0 dB.',
    rule: 'A system slider with a gain other than 0 dB.',
    source: COMMON,
  },
  'word-clock': {
    title: findingTitles['word-clock'],
    cause: 'A second unit on a digital connection.',
    rule: 'A digital input in the strip.',
    source: COMMON,
  },
  'link-capacity': {
    title: findingTitles['link-capacity'],
    cause: 'At higher sample rates an optical 8-channel link carries fewer channels.',
    rule: '8 up to 48 kHz, 4 up to 96 kHz, 2 above.',
    source: 'the optical 8-channel format; from memory',
  },
  'ein-below-thermal': {
    title: findingTitles['ein-below-thermal'],
    cause: 'It was measured with a shorted input, or it is a misprint.',
    rule: 'EIN at or below the thermal noise of its own resistor.',
    source: 'Johnson and Nyquist, 1928',
  },
  'past-crossover': {
    title: findingTitles['past-crossover'],
    cause: 'The preamp’s noise is over the converter’s.',
    rule: 'Gain above 0 dBFS level − dynamic range − EIN excess.',
    source: DEFINITION,
  },
  'electronics-only': {
    title: findingTitles['electronics-only'],
    cause: 'No room noise was entered.',
    rule: 'A sound source without a room noise.',
    source: DEFINITION,
  },
  'low-cut': {
    title: findingTitles['low-cut'],
    cause: 'It was switched in.',
    rule: 'Butterworth of its slope.',
    source: 'filter theory',
  },
  'volume-down': {
    title: findingTitles['volume-down'],
    cause: 'A passive volume knob takes level off before anything amplifies it.',
    rule: 'Its own volume down by 3 dB or more.',
    source: COMMON,
  },
  'off-axis': {
    title: findingTitles['off-axis'],
    cause: 'The microphone is turned away from the source.',
    rule: 'Over 3 dB less than from the front.',
    source: 'first-order directivity, handbook acoustics',
  },
  'rate-not-offered': {
    title: findingTitles['rate-not-offered'],
    cause: 'The session’s sample rate is not among the unit’s.',
    rule: 'The unit’s list of rates.',
    source: DEFINITION,
  },
  'buffer-not-offered': {
    title: findingTitles['buffer-not-offered'],
    cause: 'The session’s buffer is not among the driver’s.',
    rule: 'The driver’s list of sizes.',
    source: DEFINITION,
  },
  'latency-unprinted': {
    title: findingTitles['latency-unprinted'],
    cause: 'Nothing is known about the converters and the driver.',
    rule: 'No latency figures, and no round trip measured.',
    source: DEFINITION,
  },
  'bus-unfed': {
    title: findingTitles['bus-unfed'],
    cause: 'No strip has a send to it.',
    rule: 'A bus without a feed.',
    source: DEFINITION,
  },
  'sum-too-hot': {
    title: findingTitles['sum-too-hot'],
    cause: 'Too many strips, or one of them too loud, meet in one stage.',
    rule: 'Under 6 dB of headroom at the likely peak where strips meet in analogue. Likely: the greater of one strip’s peak with the RMS of all others, and the sum’s average + 10.2 dB.',
    source: `own simulation; the reserve is ${COMMON}`,
  },
  'stream-loudness': {
    title: findingTitles['stream-loudness'],
    cause: 'The gain before the limiter is too high or too low for the loudness that is wanted.',
    rule: 'Estimate, AES17 RMS − 3.70 + K + 10 lg(channels), more than 1 LU off.',
    source: 'ITU-R BS.1770; EBU R 128',
  },
  'limiter-works': {
    title: findingTitles['limiter-works'],
    cause: 'There is more gain before the limiter than its ceiling allows.',
    rule: 'More than 6 dB taken off at the rehearsed peak.',
    source: COMMON,
  },
  'feedback-margin': {
    title: findingTitles['feedback-margin'],
    cause: 'Microphones are heard by a loudspeaker in their own room.',
    rule: '−10 lg Σ 10^(loop/10) − 6 dB under 3 dB. The loop is the greatest small-signal gain from the capsule, on its axis, to all loudspeakers at 1 m, less 20 lg of their distance.',
    source: 'Davis and Patronis, Sound System Engineering; from memory',
  },
  'feedback-unknown': {
    title: findingTitles['feedback-unknown'],
    cause: 'A microphone feeds a loudspeaker, and no distance between them is given.',
    rule: 'A bus with a loudspeaker at its end and a microphone before it, without the room’s layout.',
    source: DEFINITION,
  },
  'power-order': {
    title: findingTitles['power-order'],
    cause: 'There is a loudspeaker at the end of the bus.',
    rule: 'Always said there.',
    source: COMMON,
  },
  'audience-level': {
    title: findingTitles['audience-level'],
    cause: 'The loudspeakers are turned up that far.',
    rule: 'An average of 85 dB SPL or more at the listener.',
    source: 'Directive 2003/10/EC, upper action value',
  },
  'no-direct-route': {
    title: findingTitles['no-direct-route'],
    cause: 'The strip is set to direct monitoring, and the unit has none.',
    rule: 'Route "direct" at a unit without it.',
    source: DEFINITION,
  },
} as const satisfies Record<FindingCode, FindingFacts>
