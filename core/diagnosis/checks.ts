/** Something to try or to look at, and what it can show. */
export interface CheckFacts {
  /** What to do, then the question. */
  readonly ask: string
  /** What can be seen, by a short key. */
  readonly outcomes: Readonly<Record<string, string>>
  /** What is to be expected where none of the causes that it asks for is there, 0…1 each (common practice, no source). */
  readonly usual: Readonly<Record<string, number>>
  /** How long it takes (common practice, no source). */
  readonly minutes: number
  readonly caution?: string
}

const EARS = 'Headphones and loudspeakers down first: it may get loud.'
const CURE = { goes: 'It goes', stays: 'It stays' } as const
const STAYS = { goes: 0.04, stays: 0.96 } as const

/**
 * Every check that tells causes apart. They are questions to a hand, an eye or an ear; a recording answers some of them
 * (`recording.ts`). Outcomes that a cause says nothing of are as usual.
 */
export const checks = {
  // Hiss
  'follow-hiss': {
    ask: 'With nobody playing, turn each gain down by 6 dB and back, from the source on. Which one changes the hiss most?',
    outcomes: { first: 'The first gain', late: 'A later gain', slider: 'The system’s slider', none: 'None of them' },
    usual: { first: 0.3, late: 0.05, slider: 0.02, none: 0.63 },
    minutes: 2,
    caution: EARS,
  },
  'cover-microphone': {
    ask: 'Switch the microphone off at its own switch, or shut it in its case, wrapped in a coat. Does the noise go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 1,
    caution: 'Never unplug a microphone while 48 V is on and the outputs are open.',
  },
  'source-volume': {
    ask: 'Check the source’s own volume. Is it fully up?',
    outcomes: { up: 'Fully up, or it has none', down: 'Turned down' },
    usual: { up: 0.95, down: 0.05 },
    minutes: 0.3,
    caution: 'Turn the gain behind it down before turning it up.',
  },
  'bypass-dynamics': {
    ask: 'Bypass every compressor, gate and expander. Does it change?',
    outcomes: { changes: 'It changes clearly', same: 'No change, or there are none' },
    usual: { changes: 0.05, same: 0.95 },
    minutes: 1,
    caution: 'A bypassed limiter no longer holds peaks back: monitors down first.',
  },
  // Level
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
  // Dropouts
  'look-at-gaps': {
    ask: 'Look closely at a crackle in the waveform, or drop the recording here. What is it?',
    outcomes: { none: 'Nothing visible', gap: 'A gap', repeat: 'A repeated piece', jump: 'A jump, nothing missing' },
    usual: { none: 0.9, gap: 0.03, repeat: 0.02, jump: 0.05 },
    minutes: 1,
  },
  'double-buffer': {
    ask: 'Set the buffer to twice its size. Do the crackles stop, or does the delay get shorter?',
    outcomes: { goes: 'The crackles stop', stays: 'No improvement' },
    usual: STAYS,
    minutes: 1,
  },
  'other-programs': {
    ask: 'Close every other program and switch wireless networks off for a minute. Do the crackles stop?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 2,
  },
  'which-driver': {
    ask: 'Check which driver the host uses.',
    outcomes: {
      exclusive: 'The maker’s own, exclusive',
      generic: 'A generic or shared one',
      none: 'The unit is not in the list',
    },
    usual: { exclusive: 0.85, generic: 0.14, none: 0.01 },
    minutes: 0.5,
  },
  'other-port': {
    ask: 'Plug the unit into another port of the computer itself, without a hub, by a short cable. Does it go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 2,
    caution: 'Monitors down while a unit is unplugged.',
  },
  'count-ticks': {
    ask: 'Count the crackles for a minute. How do they come?',
    outcomes: {
      random: 'At random',
      regular: 'Regularly, even when nothing plays',
      switched: 'When something is switched in the building',
    },
    usual: { random: 0.92, regular: 0.05, switched: 0.03 },
    minutes: 1,
  },
  'clock-lock': {
    ask: 'Check the clock settings of all digital units.',
    outcomes: { one: 'One gives the clock, the others show lock', several: 'Several run on their own, or no lock' },
    usual: { one: 0.97, several: 0.03 },
    minutes: 1,
  },
  // Twice, late
  'mute-host': {
    ask: 'Switch the host’s input monitoring of this track off, and keep the direct sound. What is left?',
    outcomes: { once: 'One sound, full', same: 'Nothing changes', silent: 'Silence' },
    usual: { once: 0.04, same: 0.5, silent: 0.46 },
    minutes: 0.3,
  },
  'how-far-apart': {
    ask: 'Clap once. How far apart are the two?',
    outcomes: { hollow: 'One sound, hollow', apart: 'Two claps, close together', seconds: 'A second or more' },
    usual: { hollow: 0.4, apart: 0.55, seconds: 0.05 },
    minutes: 0.3,
  },
  'comb-in-file': {
    ask: 'Is the second sound in the recording too? Listen to the file, or drop it here.',
    outcomes: { clean: 'The recording is clean', comb: 'It is in the recording' },
    usual: { clean: 0.9, comb: 0.1 },
    minutes: 1,
  },
  'mute-return': {
    ask: 'Mute the desk’s channels that the computer returns on. Does the second sound go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
  },
  'mute-loudspeakers': {
    ask: 'Turn down every loudspeaker that plays this sound. Does it go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
  },
  'listen-direct': {
    ask: 'Listen direct, inside the unit, not through the host. Is it still late?',
    outcomes: { goes: 'No longer late', stays: 'Still late', none: 'The unit has no direct monitoring' },
    usual: { goes: 0.5, stays: 0.4, none: 0.1 },
    minutes: 0.5,
  },
  'halve-buffer': {
    ask: 'Set the buffer to half. Is it clearly earlier?',
    outcomes: { earlier: 'Clearly earlier', same: 'Hardly any difference' },
    usual: { earlier: 0.1, same: 0.9 },
    minutes: 1,
  },
  'headphones-instead': {
    ask: 'Listen by headphones on a cable, not by a loudspeaker. Is it still late?',
    outcomes: { goes: 'No longer late', stays: 'Still late' },
    usual: STAYS,
    minutes: 0.5,
    caution: 'Volume down before headphones go on.',
  },
  'cable-instead': {
    ask: 'Replace the wireless link by a cable. Is it still late?',
    outcomes: { goes: 'No longer late', stays: 'Still late, or there is no such link' },
    usual: STAYS,
    minutes: 2,
  },
  // Sides
  'look-at-track': {
    ask: 'Look at the track: is it mono or stereo, and where is its pan?',
    outcomes: {
      centred: 'Mono, in the middle',
      stereo: 'A stereo track, one input',
      panned: 'Mono, panned to one side',
    },
    usual: { centred: 0.93, stereo: 0.04, panned: 0.03 },
    minutes: 0.3,
  },
  'file-channels': {
    ask: 'Look at the recording: are both channels alike?',
    outcomes: { both: 'Both are there', empty: 'One is empty' },
    usual: { both: 0.95, empty: 0.05 },
    minutes: 0.5,
  },
  'plug-home': {
    ask: 'Push the headphone or loudspeaker plug fully in, or try another pair. Are both sides there?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
    caution: 'Volume down while plugs are moved.',
  },
  'balance-control': {
    ask: 'Check the balance controls of the unit, the headphone amplifier and the system.',
    outcomes: { centred: 'All in the middle', off: 'One is off centre' },
    usual: { centred: 0.97, off: 0.03 },
    minutes: 0.3,
  },
  // Nothing
  'where-it-dies': {
    ask: 'Follow the signal from meter to meter while somebody plays. Where is the first meter that does not move?',
    outcomes: {
      input: 'Already at the input',
      host: 'In the host; the unit’s own moves',
      ears: 'All move, but nothing is heard',
    },
    usual: { input: 0.34, host: 0.33, ears: 0.33 },
    minutes: 0.5,
  },
  'phantom-lamp': {
    ask: 'Check the 48 V lamp of this input.',
    outcomes: {
      on: 'On, and it is needed',
      off: 'Off, though it is needed',
      needless: 'Off, and nothing here needs 48 V',
      harmful: 'On, and something here must not get it',
    },
    usual: { on: 0.5, off: 0.02, needless: 0.47, harmful: 0.01 },
    minutes: 0.3,
    caution:
      'Before 48 V is switched on, mute the outputs. Nothing on the same switch may be harmed by it, such as an old ribbon or an unbalanced output.',
  },
  'mute-switches': {
    ask: 'Check the mute switches of the microphone, the desk and the track.',
    outcomes: { open: 'None is in', muted: 'One is in' },
    usual: { open: 0.96, muted: 0.04 },
    minutes: 0.5,
  },
  'other-input': {
    ask: 'Tap the microphone, or play, and look at the meters of all inputs. Does another one move?',
    outcomes: { elsewhere: 'Another one moves', right: 'The right one moves', none: 'None moves' },
    usual: { elsewhere: 0.03, right: 0.4, none: 0.57 },
    minutes: 0.5,
  },
  'track-armed': {
    ask: 'Look at the track: armed, with this input chosen?',
    outcomes: { armed: 'Armed, the right input', not: 'Not armed, or another input' },
    usual: { armed: 0.96, not: 0.04 },
    minutes: 0.3,
  },
  'device-chosen': {
    ask: 'Look at the host’s audio settings: is the unit chosen, and not in use by another program?',
    outcomes: { open: 'Chosen and open', taken: 'In use elsewhere, or another device chosen' },
    usual: { open: 0.96, taken: 0.04 },
    minutes: 0.5,
  },
  'speaker-volume': {
    ask: 'Check the volume of headphones and loudspeakers, and their power lamps.',
    outcomes: { up: 'Up, and on', down: 'Down or off' },
    usual: { up: 0.96, down: 0.04 },
    minutes: 0.3,
    caution: 'Start from low: turn it up slowly with the sound playing. Amplifiers on last, off first.',
  },
  'output-socket': {
    ask: 'Follow the cable from the headphones or loudspeakers back: is it in the output that the host plays to?',
    outcomes: { right: 'The right output', other: 'Another output' },
    usual: { right: 0.96, other: 0.04 },
    minutes: 0.5,
  },
  // Pitch
  'read-rates': {
    ask: 'Read the sample rate in the host, the unit and every other digital device.',
    outcomes: { same: 'All the same', differ: 'They differ' },
    usual: { same: 0.95, differ: 0.05 },
    minutes: 1,
  },
  'one-file': {
    ask: 'Is everything off in pitch, or one file only?',
    outcomes: { all: 'Everything', one: 'One file only' },
    usual: { all: 0.5, one: 0.5 },
    minutes: 0.3,
  },
  // Howl
  'mute-sends': {
    ask: 'Turn down the sends of the microphones into the loudspeakers, one at a time. When does it stop?',
    outcomes: { one: 'With one of them', several: 'Only with several', none: 'It does not stop' },
    usual: { one: 0.3, several: 0.3, none: 0.4 },
    minutes: 1,
    caution: 'Bring the loudspeakers down first; a howl is loud enough to hurt ears and drivers.',
  },
  'meant-for-room': {
    ask: 'Are all microphones that are sent to these loudspeakers meant to be heard there?',
    outcomes: { meant: 'Yes', not: 'One is not' },
    usual: { meant: 0.9, not: 0.1 },
    minutes: 0.3,
  },
  'where-it-looks': {
    ask: 'Check where the front of each microphone points.',
    outcomes: { away: 'Away from the loudspeakers', towards: 'Towards a loudspeaker' },
    usual: { away: 0.93, towards: 0.07 },
    minutes: 0.3,
  },
  // Hum
  'on-battery': {
    ask: 'Unplug the power supply from the computer and run it on battery. Does the hum go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
    caution:
      'Only the low-voltage plug at the computer. Never lift a protective earth, never tape over an earth pin: it is there for your life. Leave the inside of devices and walls to a qualified person; local rules come first.',
  },
  'balanced-lead': {
    ask: 'Replace the cable by a short or a balanced one. Does it change clearly?',
    outcomes: { changes: 'It changes clearly', same: 'No change' },
    usual: { changes: 0.04, same: 0.96 },
    minutes: 2,
    caution: 'Monitors down while cables are moved.',
  },
  'earth-lift': {
    ask: 'Flip the earth-lift switch of the DI box. Does the hum go away?',
    outcomes: { goes: 'It goes', stays: 'It stays', none: 'There is no DI box with such a switch' },
    usual: { goes: 0.03, stays: 0.3, none: 0.67 },
    minutes: 0.3,
    caution: 'The switch of the signal’s earth only. Never the mains earth.',
  },
  'turn-the-pickup': {
    ask: 'Turn the instrument or microphone by 90°, and move it away from power supplies and lamps. Does the hum change?',
    outcomes: { changes: 'It changes clearly', same: 'No change' },
    usual: { changes: 0.05, same: 0.95 },
    minutes: 0.5,
  },
  'hum-lines': {
    ask: 'Record ten seconds in which nobody plays and drop the file here, or look at its spectrum. Which lines stand out?',
    outcomes: {
      none: 'None',
      alone: '50 or 60 Hz by itself',
      odd: 'It and its odd multiples (150, 250 or 180, 300 Hz)',
      even: '100 or 120 Hz and its multiples',
    },
    usual: { none: 0.85, alone: 0.05, odd: 0.05, even: 0.05 },
    minutes: 2,
  },
  // Level moves
  'enhancements': {
    ask: 'Open the system’s settings of this input: is automatic gain, noise suppression or an “enhancement” on?',
    outcomes: { off: 'All off', on: 'One is on' },
    usual: { off: 0.94, on: 0.06 },
    minutes: 1,
  },
  'during-calls': {
    ask: 'Does it happen when a call, a message or a notification comes in?',
    outcomes: { yes: 'Yes', no: 'No' },
    usual: { yes: 0.03, no: 0.97 },
    minutes: 0.3,
  },
  'watch-performer': {
    ask: 'Watch the performer’s distance to the microphone for a minute.',
    outcomes: { moves: 'It moves by a third or more', still: 'It stays' },
    usual: { moves: 0.06, still: 0.94 },
    minutes: 1,
  },
  // Tone
  'flip-polarity': {
    ask: 'With both microphones open, flip the polarity of one. Is it fuller?',
    outcomes: { fuller: 'Fuller', thinner: 'Thinner, or no change', none: 'There is one microphone only' },
    usual: { fuller: 0.04, thinner: 0.46, none: 0.5 },
    minutes: 0.3,
  },
  'one-microphone': {
    ask: 'Mute one of two microphones that hear the same source. Is it fuller?',
    outcomes: { fuller: 'Fuller', same: 'No change', none: 'There is one microphone only' },
    usual: { fuller: 0.06, same: 0.44, none: 0.5 },
    minutes: 0.3,
  },
  'microphone-side': {
    ask: 'Look for the mark on the microphone, and speak at it from that side. Is it brighter and fuller?',
    outcomes: { brighter: 'Yes', same: 'It was right', none: 'There is no microphone' },
    usual: { brighter: 0.04, same: 0.7, none: 0.26 },
    minutes: 0.3,
  },
  'short-lead': {
    ask: 'Replace the cable of the instrument by a short one. Is it brighter?',
    outcomes: { brighter: 'Brighter', same: 'No change' },
    usual: { brighter: 0.04, same: 0.96 },
    minutes: 1,
    caution: 'Monitors down while cables are moved.',
  },
  // Not seen
  'other-cable': {
    ask: 'Use another USB cable that is known to carry data. Is the unit detected?',
    outcomes: { seen: 'It is detected', same: 'Still not' },
    usual: { seen: 0.03, same: 0.97 },
    minutes: 1,
  },
  'as-storage': {
    ask: 'Does a drive appear instead?',
    outcomes: { drive: 'A drive appears', none: 'Nothing does' },
    usual: { drive: 0.05, none: 0.95 },
    minutes: 0.3,
  },
  'firmware': {
    ask: 'Compare the unit’s firmware with the version the driver needs.',
    outcomes: { current: 'They match', old: 'Too old, or in update mode' },
    usual: { current: 0.94, old: 0.06 },
    minutes: 1,
    caution: 'Never cut the power while firmware is written.',
  },
} as const satisfies Record<string, CheckFacts>

export type CheckId = keyof typeof checks
export const checkIds = Object.keys(checks) as CheckId[]
/** What was seen, by check. */
export type Answers = Partial<Record<CheckId, string>>
export const checkOf = (id: CheckId): CheckFacts => checks[id]
