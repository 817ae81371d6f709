/** What is asked how loud it is: a voice, or an instrument before a microphone. */
export type LoudKind = 'voice' | 'instrument-mic'

interface Loud {
  readonly words: string
  readonly of: LoudKind
  /** Average at 1 m, dB SPL. */
  readonly level: number
  /** Peak over average, dB. */
  readonly crest: number
  /** How much louder the take may get than the soundcheck, dB. */
  readonly surge: number
}

/**
 * How loud a source is, as one says it. Speech: vocal efforts of ANSI S3.5-1997, from memory, shouting in the middle of 82 to 88 dB;
 * the rest, and all crest factors and surges, common practice, no source: 3 dB of surge in a rehearsed piece, 6 in talk, 10 where
 * shouting may come.
 */
export const loudnesses = {
  'soft': { words: 'speaks softly', of: 'voice', level: 55, crest: 13, surge: 6 },
  'normal': { words: 'speaks as usual', of: 'voice', level: 60, crest: 13, surge: 6 },
  'raised': { words: 'speaks with a raised voice', of: 'voice', level: 68, crest: 13, surge: 6 },
  'loud': { words: 'speaks loudly', of: 'voice', level: 75, crest: 13, surge: 10 },
  'shouted': { words: 'shouts', of: 'voice', level: 85, crest: 13, surge: 10 },
  'sung': { words: 'sings', of: 'voice', level: 75, crest: 13, surge: 3 },
  'belted': { words: 'belts', of: 'voice', level: 90, crest: 13, surge: 3 },
  'full-voice': { words: 'sings at full voice, trained', of: 'voice', level: 100, crest: 13, surge: 3 },
  'acoustic-guitar': { words: 'acoustic guitar', of: 'instrument-mic', level: 75, crest: 16, surge: 3 },
  'upright-piano': { words: 'upright piano', of: 'instrument-mic', level: 85, crest: 14, surge: 3 },
  'brass': { words: 'brass', of: 'instrument-mic', level: 95, crest: 12, surge: 3 },
  'guitar-amplifier': { words: 'guitar amplifier', of: 'instrument-mic', level: 105, crest: 12, surge: 3 },
  'drum-kit': { words: 'drum kit', of: 'instrument-mic', level: 105, crest: 19, surge: 3 },
} as const satisfies Record<string, Loud>
export type Loudness = keyof typeof loudnesses

/** The answers that fit a kind of source. */
export const loudnessesOf = (kind: LoudKind): readonly Loudness[] =>
  (Object.keys(loudnesses) as Loudness[]).filter((each) => loudnesses[each].of === kind)
