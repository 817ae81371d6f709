import { isInterface } from '../gear'
import { evaluateSession } from '../evaluation/evaluate-session'
import { stagesOf } from '../resolved/resolve-session'
import { gainControls } from '../chain/gain-control'
import { meterReading } from '../chain/target-window'
import { templateIds, templateOf } from './planted/templates'
import { seeded } from '../numeric/random'
import type { Session } from '../session'
import { applySettings } from '../edits'
import { isBus } from '../model'
import { db, formatDecimal, formatShort } from '../units'
import { viewOf } from './exercise'
import { CEILING_FIGURES, NOISE_FIGURES, figuresOf } from './figures'

/** What is to be estimated. */
export const drillKinds = ['set-gain', 'headroom', 'floor', 'delay', 'noise-source'] as const
export type DrillKind = (typeof drillKinds)[number]

export const drillTitles: Record<DrillKind, string> = {
  'set-gain': 'Set the gain to the target',
  'headroom': 'Estimate the headroom',
  'floor': 'Estimate the noise floor',
  'delay': 'Estimate the delay',
  'noise-source': 'Who sets the noise?',
}

/** What an estimate is good for. */
export const drillTeaches: Record<DrillKind, string> = {
  'set-gain': 'From the source’s level to the knob, before anybody plays.',
  'headroom': 'How far the peaks are from clipping, and which stage clips first.',
  'floor': 'How loud the noise is under the signal, and whether it will be heard.',
  'delay': 'What buffer and sample rate cost the ear.',
  'noise-source': 'Which device to exchange, and which would change nothing.',
}

/** An estimate to be made of a chain, with the answer as it is computed. */
export interface Drill {
  kind: DrillKind
  seed: number
  session: Session
  strip: string
  ask: string
  /** What may be known for it: meters and figures, not the answer. */
  given: string[]
  unit: 'dB' | 'dBFS' | 'ms' | null
  answer: number | string
  /** Where one is chosen. */
  choices: string[]
  /** The setting that a gain drill turns: it is heard and metered while it is turned. */
  turns: { stage: string; from: number; min: number; max: number } | null
}

/** An estimate within that is good: half of it is very good (common practice, no source). */
const GOOD = { dB: 3, dBFS: 4, ms: 2 } as const

/** A drill of a kind; the same seed makes the same. */
export function drillOf(kind: DrillKind, seed: number): Drill {
  const random = seeded(seed)
  random()
  for (let i = 0; i < 60; i++) {
    const template = templateIds[Math.floor(random() * templateIds.length)] as (typeof templateIds)[number]
    const session = templateOf(template).make(random)
    const strips = session.strips.filter((strip) => !isBus(strip))
    const strip = strips[Math.floor(random() * strips.length)]
    const drill = strip && MAKERS[kind](session, strip.id, random)
    if (drill) return { kind, seed, ...drill }
  }
  throw new Error(`No chain was found for the drill ${kind}.`)
}

type Made = Omit<Drill, 'kind' | 'seed'> | null
const number = (unit: Drill['unit'], answer: number) => ({ unit, answer, choices: [], turns: null })

function chainOf(session: Session, strip: string) {
  const own = session.strips.find(({ id }) => id === strip)
  const evaluated = evaluateSession(session).strips.find(({ id }) => id === strip)
  if (!own || !evaluated) return null
  const stages = stagesOf(session, own)
  return { own, evaluated, stages, name: (stage: string) => stages.find(({ id }) => id === stage)?.gear.name ?? '' }
}

type Chain = NonNullable<ReturnType<typeof chainOf>>

const MAKERS: Record<DrillKind, (session: Session, strip: string, random: () => number) => Made> = {
  'set-gain': (session, strip, random) => {
    const chain = chainOf(session, strip)
    const input = chain?.stages.findLast((each) => isInterface(each))
    const control = input && gainControls(input)[0]
    if (!chain || !control) return null
    // Somewhere off, so far that it has to be turned.
    const off = Math.round((random() < 0.5 ? -1 : 1) * (8 + 10 * random()))
    const from = control.value + off
    if (from < control.range.gainMin || from > control.range.gainMax) return null
    const turned = applySettings(session, [{ strip, stage: control.stage, setting: 'gain', to: db(from) }])
    const after = viewOf(turned, strip)
    const { place, target } = after.chain
    const point = place && after.points[place.index]
    if (!place || !point || point.clipped) return null
    const reads = meterReading(point, place, target)
    return {
      session: turned,
      strip,
      ask: `Turn the gain of “${chain.name(control.stage)}” so that the loudest passage reads ${formatDecimal(target.aim, 1)} dBFS.`,
      given: [
        `It is at ${formatDecimal(from, 0)} dB.`,
        `The target’s window: ${formatDecimal(target.low, 0)} … ${formatDecimal(target.high, 0)} dBFS.`,
      ],
      ...number('dB', from + (target.aim - reads)),
      turns: { stage: control.stage, from, min: control.range.gainMin, max: control.range.gainMax },
    }
  },
  'headroom': (session, strip) => {
    const chain = chainOf(session, strip)
    const tight = chain?.evaluated.tightest
    if (!chain || !tight) return null
    const at = chain.stages.findIndex(({ id }) => id === tight.stage)
    return {
      session,
      strip,
      ask: `How much headroom is left where it is least, at “${chain.name(tight.stage)}”?`,
      // The level at the place itself would be the answer where the ceiling is 0 dBFS.
      given: [
        ...levelsIn(chain)
          .filter(({ stage }) => chain.stages.findIndex(({ id }) => id === stage) < at)
          .map(({ says }) => says),
        ...figuresOf(chain.stages.slice(0, at + 1), CEILING_FIGURES),
      ],
      ...number('dB', tight.headroom),
    }
  },
  'floor': (session, strip) => {
    const chain = chainOf(session, strip)
    const end = chain?.evaluated.points.at(-1)
    if (!chain || end?.unit !== 'dBFS' || end.noise === null) return null
    return {
      session,
      strip,
      ask: 'At what level does the recording’s noise lie, A-weighted?',
      given: givenForNoise(chain, session),
      ...number('dBFS', end.noise),
    }
  },
  'delay': (session, strip, random) => {
    const frames = [32, 64, 128, 256, 512, 1024][Math.floor(6 * random())] as number
    const rate = [44_100, 48_000, 96_000][Math.floor(3 * random())] as number
    const set = { ...session, system: { ...session.system, bufferFrames: frames as never, sampleRate: rate as never } }
    const route = chainOf(set, strip)?.evaluated.latency.find((each) => each.route === 'software')
    const unit = set.gear.find((each) => isInterface(each))
    if (!route || !isInterface(unit) || !unit.latency) return null
    const { converterIn, converterOut, safetyIn, safetyOut, fixed } = unit.latency
    return {
      session: set,
      strip,
      ask: 'How long is the monitoring delay through the host?',
      given: [
        `A buffer of ${frames} frames at ${formatShort(rate / 1000)} kHz, one each way.`,
        `Converters ${converterIn} + ${converterOut} frames, driver ${safetyIn} + ${safetyOut} frames, ${formatShort(fixed)} ms besides.`,
      ],
      ...number('ms', route.milliseconds),
    }
  },
  'noise-source': (session, strip) => {
    const chain = chainOf(session, strip)
    const noise = chain?.evaluated.noise ?? []
    const [first, next] = noise
    if (!chain || !first || !next || first.share - next.share < 0.2) return null
    const words = ({ name, stage }: (typeof noise)[number]) =>
      name === 'room' ? 'the room' : `${NOISES[name] ?? name} of “${chain.name(stage)}”`
    return {
      session,
      strip,
      ask: 'Who makes most of the noise in the recording?',
      given: givenForNoise(chain, session),
      unit: null,
      answer: words(first),
      choices: [...new Set(noise.slice(0, 5).map(words))].sort(),
      turns: null,
    }
  },
}

const NOISES: Record<string, string> = {
  'self-noise': 'the self-noise',
  'thermal': 'the thermal noise',
  'source': 'the own noise',
  'booster': 'the noise',
  'preamp': 'the preamp',
  'output-stage': 'the output stage',
  'link': 'the noise',
  'converter': 'the converter',
  'word-length': 'the word length',
}

const roomWords = ({ room }: Session) =>
  room.ambient === undefined ? 'Nothing is known of the room.' : `The room: ${formatShort(room.ambient)} dBA.`

/** Every level and every figure that noise is worked out from. */
const givenForNoise = (chain: Chain, session: Session): string[] => [
  ...levelsIn(chain).map(({ says }) => says),
  ...figuresOf(chain.stages, NOISE_FIGURES),
  roomWords(session),
]

/** The levels that one may read off, stage by stage. */
const levelsIn = ({ evaluated, name }: Chain): { stage: string; says: string }[] =>
  evaluated.points.map(({ stage, unit, average, peak }) => ({
    stage,
    says: `“${name(stage)}”: average ${formatDecimal(average, 1)}, peak ${formatDecimal(peak, 1)} ${unit === 'dBSPL' ? 'dB SPL' : unit}`,
  }))

/** How good an estimate is: the error, and points from 100 down to 0. */
export function scoreDrill(
  drill: Drill,
  given: number | string,
): { error: number | null; points: number; good: boolean } {
  if (typeof drill.answer === 'string' || drill.unit === null)
    return { error: null, points: given === drill.answer ? 100 : 0, good: given === drill.answer }
  const error = Number(given) - drill.answer
  const good = GOOD[drill.unit]
  const points = Math.max(0, Math.round(100 - (50 * Math.abs(error)) / good))
  return { error, points, good: Math.abs(error) <= good }
}
