import { usualTiming } from './blank'
import { blankGear } from './blank-gear'
import type { BusUse } from './busses'
import { addFedBus } from './busses'
import { applyChanges } from './change'
import type { AudioInterface, Gear, GearKind } from '../gear'
import { isElectricSource, isSoundSource, withChoice } from '../gear'
import { SESSION_FORMAT, SESSION_VERSION } from '../session/session'
import type { Session } from '../session/session'
import { withSpec } from './edit'
import type { LoudKind, Loudness } from './loudness'
import { loudnesses } from './loudness'
import { readSession } from '../files/read'

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

/**
 * A session from the answers at the start, with the usual figures of each kind (common practice, no source), marked as assumed until
 * they are given. It is not planned yet. Channels of a desk that has a group come into the host by the group alone: one after the
 * other, not side by side.
 */
export function startSession(id: string, name: string, answers: StartAnswers): Session {
  const chain = chainOf(answers)
  const names = namesOf(answers)
  const each = names.map((called, i) => ({
    ...answers,
    name: called,
    what: kindAt(answers, called, i),
    loudness: answers.loudnesses?.[i] ?? answers.loudness,
  }))
  const busses = bussesFor(answers).filter((use) => answers.into?.includes(use))
  const inSeries = busses.includes('group')
  const inputs = each.map((own) => inputFor(own, chain))
  const unit = inSeries ? groupUnit() : unitFor(inputs, countedIds(inputs))
  const strips = each.map((own, i) => {
    const boxes = boxesBefore(own, chain, own.name, i + 1, names.length > 1)
    const phantom = inputs[i] === 'mic' && needsPhantom(own)
    const end: Placed = { gear: unit, port: unit.inputs[i]?.id, settings: phantom ? { phantom } : {} }
    const stages = (inSeries ? boxes : [...boxes, end]).map(({ gear, ...placed }, k) => ({
      id: `strip-${i + 1}-${k + 1}`,
      gear: gear.id,
      ...placed,
    }))
    const monitor = { output: 'phones', ...(answers.hears && { route: answers.hears }) }
    const { listensTo } = recordables[own.what]
    const strip = { id: `strip-${i + 1}`, name: own.name, stages, monitor, performer: { listensTo } }
    return { boxes, strip }
  })
  const reading = readSession({
    format: SESSION_FORMAT,
    version: SESSION_VERSION,
    id,
    name,
    gear: [...strips.flatMap(({ boxes }) => boxes.map(({ gear }) => gear)), unit],
    strips: strips.map(({ strip }) => strip),
  })
  if (!reading.ok) throw new Error(`The start is faulty: ${reading.faults[0]?.path} ${reading.faults[0]?.message}`)
  return busses.reduce(
    (session, use) => (use === 'group' ? withGroupInput(addFedBus(session, use), unit) : addFedBus(session, use)),
    reading.session,
  )
}

/** The group comes into the host by its own input. */
const withGroupInput = (session: Session, unit: AudioInterface): Session =>
  session.strips
    .slice(-1)
    .reduce(
      (current, { id, stages }) =>
        applyChanges(current, [
          { do: 'insert', strip: id, index: stages.length, gear: unit, port: unit.inputs[0]?.id ?? '' },
        ]),
      session,
    )

/** How an instrument is taken is an answer, not a name’s to tell. */
const isInstrument = (kind: Recordable | null | undefined) => kind === 'instrument-mic' || kind === 'instrument-lead'

/** What one of the names is: as it was said, else as the name tells, else what is recorded. */
export function kindAt({ kinds, what }: StartAnswers, name: string, i: number): Recordable {
  const told = kindOfName(name)
  return kinds?.[i] ?? (isInstrument(what) && isInstrument(told) ? what : told) ?? what ?? 'voice'
}

const chainOf = ({ chain, what, microphone }: StartAnswers): ChainAnswer =>
  microphone === 'usb' ? 'interface' : (chain ?? (what === 'many' ? 'desk' : 'interface'))

/** Busses that the answers so far can feed: those of a desk only behind one. */
export const bussesFor = (answers: StartAnswers): readonly BusUse[] =>
  chainOf(answers) === 'desk' ? ['group', 'stream', 'room', 'sub-and-tops'] : ['stream']

/** A box as it is to stand in a strip. */
interface Placed {
  gear: Gear
  port?: string | undefined
  settings: object
}

const isSound = ({ what = 'voice' }: StartAnswers) => isByMicrophone(what)

/** A microphone with a converter of its own: it passes no preamp and no desk. */
const isUsb = (answers: StartAnswers) => isSound(answers) && answers.microphone === 'usb'

/** The type of input that the chain ends in. */
function inputFor(answers: StartAnswers, chain: ChainAnswer): InputType {
  if (isUsb(answers)) return 'digital'
  if (chain !== 'interface' || isLine(answers)) return 'line'
  return isSound(answers) ? 'mic' : 'instrument'
}

/** Everything before the interface: the source, its microphone or DI box, a preamp or a desk channel. */
function boxesBefore(
  answers: StartAnswers,
  chain: ChainAnswer,
  name: string,
  number: number,
  several: boolean,
): Placed[] {
  const called = (own: string, counted: string) => (several ? `${counted} ${number}` : own)
  const sound = isSound(answers)
  const boxes: Placed[] = [
    { gear: sourceOf(answers, `source-${number}`, name), settings: sound ? { distance: answers.distance ?? 0.3 } : {} },
  ]
  if (sound) {
    const { microphone = 'condenser' } = answers
    const gear = microphoneOf(microphone, `microphone-${number}`, called('My microphone', 'Microphone'))
    boxes.push({ gear, settings: isUsb(answers) ? { gain: 0 } : {} })
    if (hasInline(answers))
      boxes.push({
        gear: blankGear('booster', `inline-${number}`, called('My inline preamp', 'Inline preamp')),
        settings: {},
      })
  } else if (chain !== 'interface' && answers.what === 'instrument-lead') {
    // A pickup drives no microphone input: the lead goes into a DI box first.
    boxes.push({ gear: blankGear('di-box', `di-box-${number}`, called('My DI box', 'DI box')), settings: {} })
  }
  if (isUsb(answers)) return boxes
  const phantom = needsPhantom(answers)
  if (chain === 'preamp' && !isLine(answers))
    boxes.push({ gear: blankGear('preamp', `preamp-${number}`, called('My preamp', 'Preamp')), settings: { phantom } })
  if (chain === 'desk') {
    const gear = deskChannelFor(answers, `channel-${number}`, `Desk channel ${number}`)
    boxes.push({ gear, settings: { phantom, fader: 0 } })
  }
  return boxes
}

const isLine = ({ what }: StartAnswers) => what === 'keys' || what === 'player'

/** A channel with the input that the source needs: a line input for what gives line level. */
function deskChannelFor(answers: StartAnswers, id: string, name: string): Gear {
  const channel = blankGear('desk-channel', id, name)
  return isLine(answers)
    ? overridden(channel, {
        input: 'line',
        phantom: false,
        specs: { gainMin: -15, gainMax: 20, maxInput: 32, ein: -90, inputImpedance: 10_000 },
      })
    : channel
}

/** Names as they are typed, with commas between. */
export const namesIn = (text: string | undefined): string[] =>
  (text ?? '')
    .split(',')
    .map((each) => each.trim().slice(0, 100))
    .filter((each) => each !== '')

function namesOf({ names, what }: StartAnswers): string[] {
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
const hasInline = (answers: StartAnswers) => isSound(answers) && answers.inline === true && canTakeInline(answers)

/** The inline preamp takes its 48 V and keeps it from the microphone. */
const needsPhantom = (answers: StartAnswers) =>
  isSound(answers) && ((answers.microphone ?? 'condenser') === 'condenser' || hasInline(answers))

function sourceOf({ what = 'voice', loudness }: StartAnswers, id: string, name: string): Gear {
  const blank = blankGear(recordables[what].source, id, name)
  const loud = loudness && loudnesses[loudness]
  if (loud?.of === loudKindOf(what)) {
    const { level, crest, surge } = loud
    return overridden(blank, { specs: { level, crest, surge } })
  }
  if (!isElectricSource(blank) || what !== 'instrument-lead') return blank
  return overridden(blank, {
    output: 'passive-pickup',
    specs: { level: -18, crest: 14, impedance: 8000, inductance: 3 },
  })
}

function microphoneOf(kind: MicrophoneAnswer, id: string, name: string): Gear {
  const { phantom, specs } = microphones[kind]
  const blank = blankGear('microphone', id, name)
  return overridden(kind === 'usb' ? withChoice(blank, 'output', 'digital') : blank, {
    principle: kind === 'usb' ? 'condenser' : kind,
    phantom,
    specs,
  })
}

/** A blank box with some of it otherwise; its figures are as assumed as before. */
function overridden(box: Gear, part: Record<string, unknown> & { specs: object }): Gear {
  const specs = Object.fromEntries(
    Object.entries({ ...('specs' in box ? box.specs : {}), ...part.specs }).filter(([, value]) => value !== undefined),
  )
  return {
    ...box,
    ...part,
    specs,
    assumed: [...new Set([...(box.assumed ?? []), ...Object.keys(part.specs)])].filter((key) => key in specs),
  } as unknown as Gear
}

type InputType = 'mic' | 'line' | 'instrument' | 'digital'

/** Inputs counted by their type: mic1, mic2, line1. */
const countedIds = (types: readonly InputType[]): string[] =>
  types.map((type, i) => `${TYPE_IDS[type]}${types.slice(0, i + 1).filter((each) => each === type).length}`)
const TYPE_IDS = { mic: 'mic', line: 'line', instrument: 'inst', digital: 'usb' } as const

/** A unit that takes a group: what many channels make together is louder than one, so its input can be turned further down. */
function groupUnit(): AudioInterface {
  const unit = unitFor(['line'], ['group'])
  const inputs = unit.inputs.map((input) =>
    input.type === 'digital' ? input : withSpec(withSpec(input, 'gainMin', -12), 'fullScale', 32),
  )
  return { ...unit, inputs }
}

/** A unit with an input of its type for every strip, and two at least. */
function unitFor(types: readonly InputType[], ids: readonly string[]): AudioInterface {
  const unit = blankGear('interface', 'interface', 'My interface') as AudioInterface
  const [usual] = unit.inputs
  const own = types.map((type, i) => ({ type, id: ids[i] }))
  const [only] = own
  const all = own.length === 1 && only ? [only, { type: only.type, id: `${TYPE_IDS[only.type]}2` }] : own
  const inputs = all.map(({ type, id }) => {
    const base = { ...(usual as Extract<typeof usual, { specs: object }>), id, type }
    if (type === 'digital') return { id, type }
    if (type === 'mic') return base
    const { ein: _, ...specs } = base.specs
    const other =
      type === 'line'
        ? { gainMax: 20, fullScale: 20, impedance: 10_000 }
        : { gainMax: 40, fullScale: 10, impedance: 1_000_000 }
    return {
      ...base,
      phantom: false,
      specs: { ...specs, ...other },
      assumed: base.assumed?.filter((key) => key !== 'ein'),
    }
  })
  return {
    ...unit,
    inputs: inputs as AudioInterface['inputs'],
    ...(usualTiming as unknown as Pick<AudioInterface, 'sampleRates' | 'bufferSizes' | 'latency'>),
  }
}
