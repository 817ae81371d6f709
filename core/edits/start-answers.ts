import type { GearKind } from '../gear'
import { isSoundSource } from '../gear'
import type { BusUse } from './busses'
import type { LoudKind, Loudness } from './loudness'

/** What is recorded, as one says it. */
export const recordables = {
  'voice': { words: 'A voice', name: 'Voice', source: 'sound-source', listensTo: 'own-voice' },
  'instrument-mic': {
    words: 'An instrument, by microphone',
    name: 'Instrument',
    source: 'sound-source',
    listensTo: 'plucked',
  },
  'instrument-lead': {
    words: 'An instrument, by its cable',
    name: 'Guitar',
    source: 'electric-source',
    listensTo: 'plucked',
  },
  'keys': { words: 'Keys, or anything at line level', name: 'Keys', source: 'electric-source', listensTo: 'keys' },
  'player': { words: 'A player of recordings', name: 'Player', source: 'electric-source', listensTo: 'click-only' },
  'many': { words: 'Many, through a desk', name: 'Channel', source: 'sound-source', listensTo: 'own-voice' },
} as const satisfies Record<string, { words: string; name: string; source: GearKind; listensTo: string }>
export type Recordable = keyof typeof recordables

/** Whether a microphone takes it, and no cable of its own. */
export const isByMicrophone = (what: Recordable): boolean => isSoundSource({ kind: recordables[what].source })

/** What one source can be; `many` is a way to begin, not a source. */
export type SourceKind = Exclude<Recordable, 'many'>

/** Words in a name that tell what it is. */
const TELLING: readonly (readonly [SourceKind, RegExp])[] = [
  ['player', /\b(laptop|computer|tablet|phone|player|playback|tape|disc|jingles?|video)\b/i],
  ['keys', /\b(keys?|keyboards?|synth\w*|piano, electric|electric piano|sampler|drum machine|line)\b/i],
  ['instrument-lead', /\b(electric guitar|guitar|bass|bass guitar|pickup)\b/i],
  [
    'instrument-mic',
    /\b(cello|violins?|viola|double bass|drums?|snare|cymbals?|tom|piano|harmonium|organ|flute|clarinet|oboe|trumpet|horn|trombone|saxophone|accordion|harp|acoustic guitar|amp|amplifier)\b/i,
  ],
  ['voice', /\b(voice|vocals?|singer|narrator|speaker|choir|alto|soprano|tenor|host|guest)\b/i],
]

/** What a name tells of a source: "Laptop" is a player of recordings; `null` where it tells nothing. The longest word of it counts. */
export function kindOfName(name: string): SourceKind | null {
  const told = TELLING.flatMap(([kind, words]) => {
    const word = words.exec(name)?.[0]
    return word ? [{ kind, length: word.length }] : []
  })
  return told.sort((a, b) => b.length - a.length)[0]?.kind ?? null
}

export const microphones = {
  'condenser': { words: 'A condenser, needs 48 V', phantom: 'needed', specs: {} },
  'moving-coil': {
    words: 'A moving-coil microphone',
    phantom: 'harmless',
    specs: { sensitivity: 2, impedance: 200, selfNoise: undefined, maxSpl: undefined },
  },
  'ribbon': {
    words: 'A ribbon microphone',
    phantom: 'harmful',
    specs: { sensitivity: 1.5, impedance: 300, selfNoise: undefined, maxSpl: undefined },
  },
  'usb': { words: 'A USB microphone, straight into the computer', phantom: 'harmless', specs: { maxSpl: 120 } },
} as const
export type MicrophoneAnswer = keyof typeof microphones

export const chains = {
  interface: 'Straight into the interface',
  preamp: 'Through a preamp of its own, then the interface; line level straight in',
  desk: 'Through a desk, then the interface',
} as const
export type ChainAnswer = keyof typeof chains

/** Answers to the questions at the start; each may be left out. */
export interface StartAnswers {
  what?: Recordable | undefined
  /** How the sources are called, parted by commas: as many strips. */
  names?: string | undefined
  /** What each of the names is, in their order; left out, what the name tells, else what is recorded. */
  kinds?: readonly (SourceKind | undefined)[] | undefined
  microphone?: MicrophoneAnswer | undefined
  /** An inline preamp behind a microphone that gives little. */
  inline?: boolean | undefined
  distance?: number | undefined
  /** How loud it is. */
  loudness?: Loudness | undefined
  /** How loud each of the names is, in their order; left out, as it is of all. */
  loudnesses?: readonly (Loudness | undefined)[] | undefined
  chain?: ChainAnswer | undefined
  hears?: 'direct' | 'software' | undefined
  /** Where it all goes besides the recorder. */
  into?: readonly BusUse[] | undefined
}

/** Sources that one start can have: as many inputs as the unit gets. */
export const MOST_SOURCES = 64

/** How an instrument is taken is an answer, not a name’s to tell. */
const isInstrument = (kind: Recordable | null | undefined) => kind === 'instrument-mic' || kind === 'instrument-lead'

/** What one of the names is: as it was said, else as the name tells, else what is recorded. */
export function kindAt({ kinds, what }: StartAnswers, name: string, i: number): Recordable {
  const told = kindOfName(name)
  return kinds?.[i] ?? (isInstrument(what) && isInstrument(told) ? what : told) ?? what ?? 'voice'
}

export const chainOf = ({ chain, what, microphone }: StartAnswers): ChainAnswer =>
  microphone === 'usb' ? 'interface' : (chain ?? (what === 'many' ? 'desk' : 'interface'))

/** Busses that the answers so far can feed: those of a desk only behind one. */
export const bussesFor = (answers: StartAnswers): readonly BusUse[] =>
  chainOf(answers) === 'desk' ? ['group', 'stream', 'room', 'sub-and-tops'] : ['stream']

export const isSound = ({ what = 'voice' }: StartAnswers) => isByMicrophone(what)

/** A microphone with a converter of its own: it passes no preamp and no desk. */
export const isUsb = (answers: StartAnswers) => isSound(answers) && answers.microphone === 'usb'

/** The type of input that the chain ends in. */
export function inputFor(answers: StartAnswers, chain: ChainAnswer): InputType {
  if (isUsb(answers)) return 'digital'
  if (chain !== 'interface' || isLine(answers)) return 'line'
  return isSound(answers) ? 'mic' : 'instrument'
}

export const isLine = ({ what }: StartAnswers) => what === 'keys' || what === 'player'

/** Names as they are typed, with commas between. */
export const namesIn = (text: string | undefined): string[] =>
  (text ?? '')
    .split(',')
    .map((each) => each.trim().slice(0, 100))
    .filter((each) => each !== '')

export function namesOf({ names, what }: StartAnswers): string[] {
  const given = namesIn(names)
  const usual = recordables[what ?? 'voice'].name
  if (given.length > 0) return given.slice(0, MOST_SOURCES)
  return what === 'many' ? Array.from({ length: 8 }, (_, i) => `${usual} ${i + 1}`) : [usual]
}

/** Of which sources one says how loud they are; `null` for what has a level of its own. */
export const loudKindOf = (kind: Recordable): LoudKind | null =>
  kind === 'instrument-mic' ? kind : isByMicrophone(kind) ? 'voice' : null

/** Microphones that an inline preamp can stand behind: it passes no 48 V on. */
export const canTakeInline = ({ microphone }: StartAnswers) => microphone === 'moving-coil' || microphone === 'ribbon'
export const hasInline = (answers: StartAnswers) =>
  isSound(answers) && answers.inline === true && canTakeInline(answers)

/** The inline preamp takes its 48 V and keeps it from the microphone. */
export const needsPhantom = (answers: StartAnswers) =>
  isSound(answers) && ((answers.microphone ?? 'condenser') === 'condenser' || hasInline(answers))

export type InputType = 'mic' | 'line' | 'instrument' | 'digital'
