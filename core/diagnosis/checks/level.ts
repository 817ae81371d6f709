import type { CheckFacts } from './check-facts'
import { EARS, CURE, STAYS } from './check-facts'

export const levelChecks = {
  'recorder-meter': {
    ask: 'Watch the recorder’s meter in the loudest passage.',
    outcomes: { top: 'It reaches the top', middle: 'Well below the top', low: 'It hardly moves' },
    usual: { top: 0.05, middle: 0.85, low: 0.1 },
    minutes: 1,
  },
  'first-gain-down': {
    ask: 'Turn the first gain down by 10 dB, and make it up at the last one. Does the distortion go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 2,
    caution: EARS,
  },
  'move-back': {
    ask: 'Move the performer to twice the distance, with the same gain. Does the distortion go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 1,
  },
  'which-socket': {
    ask: 'Read the labels at both sockets: which level one device gives (microphone, instrument, line), and which the other expects.',
    outcomes: {
      fits: 'They are the same',
      hot: 'A hotter signal than the input expects',
      cold: 'A weaker signal than the input expects',
    },
    usual: { fits: 0.94, hot: 0.03, cold: 0.03 },
    minutes: 0.5,
  },
  'bypass-plug-ins': {
    ask: 'Bypass all plug-ins and effects. Does it go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
    caution: EARS,
  },
  'system-slider': {
    ask: 'Check the system’s level slider of this input.',
    outcomes: { zero: 'At 0 dB, or there is none', up: 'Above 0 dB', down: 'Below 0 dB' },
    usual: { zero: 0.94, up: 0.03, down: 0.03 },
    minutes: 0.5,
    caution: EARS,
  },
  'pads': {
    ask: 'Check the pad switches of the microphone, of any device between, and of the input.',
    outcomes: { out: 'All out', in: 'One is in' },
    usual: { out: 0.93, in: 0.07 },
    minutes: 0.3,
    caution: 'Gain down before a pad is taken out.',
  },
  'measure-distance': {
    ask: 'Measure from the source to the microphone. Is it as planned?',
    outcomes: { planned: 'As planned', farther: 'Farther away', nearer: 'Nearer' },
    usual: { planned: 0.93, farther: 0.05, nearer: 0.02 },
    minutes: 0.5,
  },
  'gain-position': {
    ask: 'Check the gains. Where are they set?',
    outcomes: { down: 'One is fully down', middle: 'Somewhere between', end: 'One is fully up' },
    usual: { down: 0.04, middle: 0.9, end: 0.06 },
    minutes: 0.3,
  },
  'flat-tops': {
    ask: 'Look at the waveform of the loudest passage, or drop the recording here. Are its tops cut off?',
    outcomes: { none: 'No, they are round', top: 'Cut off at full scale', below: 'Cut off below full scale' },
    usual: { none: 0.93, top: 0.04, below: 0.03 },
    minutes: 1,
  },
  'floor-as-planned': {
    ask: 'Record a pause and drop the file here: is its floor as planned?',
    outcomes: { planned: 'As planned', higher: 'More than 3 dB higher', lower: 'More than 3 dB lower' },
    usual: { planned: 0.8, higher: 0.15, lower: 0.05 },
    minutes: 2,
  },
  'offset': {
    ask: 'Drop a recording here, or look at its mean: is it off centre?',
    outcomes: { none: 'In the middle', off: 'Off the middle' },
    usual: { none: 0.97, off: 0.03 },
    minutes: 1,
  },
} as const satisfies Record<string, CheckFacts>
