/** What an engineer complains of, in the words that are used for it. */
interface SymptomFacts {
  readonly title: string
  /** Other ways to say it; a search looks at them too. */
  readonly also: readonly string[]
}

/** The symptoms, in the order in which they are shown. */
export const symptoms = {
  'hiss': { title: 'It hisses', also: ['noise', 'noisy', 'rushing', 'sizzle', 'floor too high', 'static'] },
  'hum': { title: 'It hums', also: ['buzz', 'mains', '50 Hz', '60 Hz', 'earth', 'ground', 'drone'] },
  'distortion': {
    title: 'It distorts',
    also: ['clipping', 'clips', 'overload', 'crunch', 'harsh', 'breaks up', 'red light', 'too hot'],
  },
  'crackle': {
    title: 'It crackles, or there are gaps',
    also: ['dropout', 'click', 'pop', 'tick', 'stutter', 'glitch', 'gap', 'xrun', 'robot'],
  },
  'echo': {
    title: 'I hear it twice',
    also: ['echo', 'doubled', 'double', 'hollow', 'flange', 'comb', 'slapback', 'myself twice', 'phasing'],
  },
  'late': { title: 'I hear myself late', also: ['latency', 'delay', 'lag', 'behind', 'out of time', 'slow'] },
  'one-side': {
    title: 'It is on one side only',
    also: ['left only', 'right only', 'one ear', 'one speaker', 'mono', 'pan'],
  },
  'nothing': {
    title: 'Nothing comes through',
    also: ['silent', 'silence', 'no sound', 'no signal', 'dead', 'no input', 'mute'],
  },
  'too-quiet': {
    title: 'It is too quiet',
    also: ['low level', 'weak', 'faint', 'soft', 'not enough gain', 'gain all the way up'],
  },
  'level-drifts': {
    title: 'The level moves by itself',
    also: ['pumping', 'breathing', 'ducking', 'drifts', 'fades', 'uneven', 'goes up and down', 'gate'],
  },
  'thin': {
    title: 'It sounds thin or dull',
    also: ['dull', 'muffled', 'no bass', 'no treble', 'nasal', 'tinny', 'hollow', 'weak bass', 'polarity'],
  },
  'pitch': {
    title: 'Wrong speed or pitch',
    also: ['flat', 'sharp', 'out of tune', 'too fast', 'too slow', 'sample rate', 'chipmunk'],
  },
  'howl': { title: 'It howls or rings', also: ['feedback', 'squeal', 'whistle', 'ringing', 'larsen', 'scream'] },
  'not-seen': {
    title: 'The unit is not detected',
    also: ['not found', 'no device', 'usb', 'driver', 'not recognised', 'only storage', 'disconnected'],
  },
} as const satisfies Record<string, SymptomFacts>

export type SymptomId = keyof typeof symptoms
export const symptomIds = Object.keys(symptoms) as SymptomId[]

/** When it happens; it tells causes apart. */
export const whens = {
  always: 'all the time',
  loud: 'in loud passages',
  regular: 'at regular intervals',
  changed: 'since something was changed',
} as const
export type When = keyof typeof whens
export const whenIds = Object.keys(whens) as When[]

/** Symptoms whose words hold everything that was typed. Nothing typed: all of them. */
export function findSymptoms(typed: string): SymptomId[] {
  const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean)
  return symptomIds.filter((id) => {
    const words = [id, symptoms[id].title, ...symptoms[id].also].join(' ').toLowerCase()
    return wanted.every((each) => words.includes(each))
  })
}
