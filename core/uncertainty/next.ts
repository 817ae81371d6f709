import type { Strip } from '../model'
import { isBus, readingWorth } from '../model'
import { stagesOf } from '../resolved/resolve-session'
import { readingPlace } from '../chain/target-window'
import type { UncertainInput } from './input'
import { slopesOf } from './known-readings'
import type { SessionUncertainty, StripUncertainty } from './uncertainty'
import { placeOf } from './figures'
import { windowOf } from './window'

/** What the verdict tells of a strip. */
export type VerdictFigure = 'headroom' | 'snr' | 'roundTrip'

/** Where something is measured: a page of the bench, a reading typed, or a card of the strip. */
export type MeasuringPlace =
  | { readonly at: 'bench'; readonly page: string }
  | { readonly at: 'reading'; readonly stage: string }
  | { readonly at: 'card'; readonly stage: string }

/** Something that could be measured, and what a figure’s standard uncertainty becomes by it. */
export interface NextMeasurement {
  what: string
  strip: string
  figure: VerdictFigure
  before: number
  after: number
  minutes: number
  place: MeasuringPlace
}

/** A way of measuring: which inputs it covers, how well it then knows them, and how long it takes (common practice, no source). */
interface Way {
  readonly page: string
  readonly what: (input: UncertainInput) => string
  readonly minutes: number
  /** Half of the width that is left, in the input’s unit; `null` for an input that it does not measure. */
  readonly half: (input: UncertainInput) => number | null
  /** Typed at the card of a stage: the input’s own, or the strip’s first. */
  readonly card?: true
}

const specAt = ({ place }: UncertainInput, side: 'inputs' | 'outputs' | null, spec: string): boolean =>
  place.in === 'gear' && (place.port?.side ?? null) === side && place.spec === spec

/** How loud somebody is in air. */
const isSoundLevel = (input: UncertainInput): boolean => specAt(input, null, 'level') && input.unit === 'dB SPL'

const onBench = (page: string, minutes: number, what: Way['what'], half: Way['half']): Way => ({
  page,
  minutes,
  what,
  half,
})

const WAYS: readonly Way[] = [
  onBench(
    'output-full-scale',
    3,
    ({ owner }) => `Measure what 0 dBFS of ${owner} gives`,
    (input) => (specAt(input, 'outputs', 'fullScale') ? 0.1 : null),
  ),
  onBench(
    'input-full-scale',
    5,
    ({ owner }) => `Measure what ${owner} takes for 0 dBFS`,
    (input) => (specAt(input, 'inputs', 'fullScale') ? 0.1 : null),
  ),
  onBench(
    'gain-marks',
    10,
    ({ owner }) => `Measure the gain at the marks of ${owner}’s knob`,
    (input) => (input.place.in === 'strip' && input.place.setting === 'gain' ? 0.5 : null),
  ),
  onBench(
    'equivalent-input-noise',
    8,
    ({ owner }) => `Measure the input noise of ${owner}`,
    (input) => (specAt(input, 'inputs', 'ein') ? 0.3 : null),
  ),
  onBench(
    'dynamic-range',
    5,
    ({ owner }) => `Measure the dynamic range of ${owner}`,
    (input) => (specAt(input, 'inputs', 'dynamicRange') || specAt(input, 'outputs', 'dynamicRange') ? 0.2 : null),
  ),
  onBench(
    'recording',
    6,
    ({ owner }) => `Record a rehearsal of ${owner} and take its crest factor and surge`,
    (input) => (specAt(input, null, 'crest') ? 0.5 : specAt(input, null, 'surge') ? 1.5 : null),
  ),
  onBench(
    'microphone-level',
    8,
    ({ owner }) => `Record ${owner} through a microphone of known sensitivity`,
    // The microphone's own sensitivity stays in it.
    (input) => (isSoundLevel(input) ? 2 : null),
  ),
  {
    page: 'sound-level',
    minutes: 2,
    what: ({ owner }) => `Measure ${owner} with a sound level meter`,
    half: (input) => (isSoundLevel(input) ? 1.5 : null),
    card: true,
  },
  {
    page: 'room',
    minutes: 2,
    what: () => 'Measure the empty room with a sound level meter',
    half: ({ path }) => (path === 'room.ambient' ? 1 : null),
    card: true,
  },
  {
    page: 'distance',
    minutes: 1,
    what: ({ owner, place }) =>
      place.in === 'monitor'
        ? 'Measure the distance to the loudspeaker'
        : `Measure the distance of ${owner} with a rule`,
    half: ({ place, value }) =>
      place.in === 'monitor' || (place.in === 'strip' && place.setting === 'distance')
        ? Math.min(0.01, value / 20)
        : null,
    card: true,
  },
]

/** A loopback tells the whole round trip of the unit; a frame or two stay. */
const LOOPBACK = { minutes: 5, u: 0.02 / Math.sqrt(3) } as const

/** What one reading of a meter takes. */
const READING_MINUTES = 1

/** Less than that is nothing gained: of a figure’s u, and in its unit. */
const WORTH_IT = { part: 0.03, least: 0.03 } as const

/** What to measure next: for each thing that can be measured what it would take off, the most for its minutes first. */
export function whatNext(doubts: SessionUncertainty): NextMeasurement[] {
  const all = doubts.session.strips.flatMap((strip) => {
    const own = doubts.strips.get(strip.id)
    return own && own.points.length > 0
      ? [...readingsOf(doubts, strip, own), ...waysOf(strip, own), ...loopback(strip, own)]
      : []
  })
  const gained = ({ before, after }: NextMeasurement) => before - after
  const worth = all.filter((each) => gained(each) > Math.max(WORTH_IT.least, WORTH_IT.part * each.before))
  // What helps several strips is one thing to do: said of the strip that it helps most.
  const best = new Map<string, NextMeasurement>()
  for (const each of worth) {
    const key = `${each.what} ${each.place.at === 'reading' ? each.place.stage : ''}`
    const known = best.get(key)
    if (!known || gained(each) > gained(known)) best.set(key, each)
  }
  return [...best.values()].sort((a, b) => gained(b) / b.minutes - gained(a) / a.minutes)
}

interface Watched {
  figure: VerdictFigure
  at: number
}

/** The verdict’s figures in a strip’s numbers: where it is tightest, its end, the way that its performer hears. */
function watched(strip: Strip, { points, linear, timed }: StripUncertainty): Watched[] {
  const tight = points
    .map((_, i) => placeOf(i, 'headroom'))
    .filter((at) => !Number.isNaN(linear.values[at]))
    .sort((a, b) => (linear.values[a] as number) - (linear.values[b] as number))[0]
  const end = placeOf(points.length - 1, 'snr')
  const routes = linear.values.length - timed
  const heard =
    strip.monitor.route === 'direct' ? (routes === 2 ? timed : null) : routes > 0 ? linear.values.length - 1 : null
  return [
    ...(tight === undefined ? [] : [{ figure: 'headroom' as const, at: tight }]),
    ...(Number.isNaN(linear.values[end]) ? [] : [{ figure: 'snr' as const, at: end }]),
    ...(heard === null ? [] : [{ figure: 'roundTrip' as const, at: heard }]),
  ]
}

/** One look at a meter during the loudest passage, which tells of the sum of all that comes before it. */
function readingsOf({ session, readings }: SessionUncertainty, strip: Strip, own: StripUncertainty): NextMeasurement[] {
  if (isBus(strip)) return []
  const stages = stagesOf(session, strip)
  const place = readingPlace(stages, windowOf(session, strip, stages))
  const stage = place && stages[place.index]
  const point = stage ? own.points.findIndex((each) => each.stage === stage.id) : -1
  if (!place || !stage || point < 0) return []
  const at = placeOf(point, 'peak')
  const where = { converter: 'at the recorder', desk: 'on the desk’s meter', pfl: 'at PFL', file: 'at the recorder' }[
    place.meter
  ]
  const read = slopesOf(own.linear.effects, at)
  const readLeft = own.u(at) ** 2
  const worth = readingWorth.peak
  return watched(strip, own).flatMap(({ figure, at: i }) => {
    const before = own.u(i)
    const common = readings.covariance(slopesOf(own.linear.effects, i), read)
    const after = Math.sqrt(Math.max(0, before ** 2 - common ** 2 / (readLeft + worth ** 2)))
    return [
      {
        what: `Take a peak reading ${where}`,
        strip: strip.id,
        figure,
        before,
        after,
        minutes: READING_MINUTES,
        place: { at: 'reading', stage: stage.id },
      },
    ]
  })
}

function waysOf(strip: Strip, own: StripUncertainty): NextMeasurement[] {
  const reaching = own.linear.effects
  return watched(strip, own).flatMap(({ figure, at }) => {
    const before = own.u(at)
    const parts = new Map(own.figure(at).shares.map(({ input, share }) => [input, share * before ** 2]))
    return WAYS.flatMap((way) => {
      const byThing = new Map<string, { input: UncertainInput; off: number }>()
      for (const { input } of reaching) {
        const half = way.half(input)
        const part = parts.get(input.path) ?? 0
        if (half === null || part <= 0 || (way.card && !input.strips.includes(strip.id))) continue
        const u = uIn(input, half)
        if (u >= input.doubt.u) continue
        const what = way.what(input)
        const off = part * (1 - (u / input.doubt.u) ** 2)
        byThing.set(what, { input, off: (byThing.get(what)?.off ?? 0) + off })
      }
      return [...byThing].map(([what, { input, off }]): NextMeasurement => ({
        what,
        strip: strip.id,
        figure,
        before,
        after: Math.sqrt(Math.max(0, before ** 2 - off)),
        minutes: way.minutes,
        place: way.card ? { at: 'card', stage: cardOf(input, strip) } : { at: 'bench', page: way.page },
      }))
    })
  })
}

const cardOf = ({ place }: UncertainInput, strip: Strip): string =>
  place.in === 'strip' && strip.id === place.strip ? place.stage : (strip.stages[0]?.id ?? '')

/** A half width in the input’s unit as a standard uncertainty in the scale of its doubt. */
const uIn = ({ value, doubt }: UncertainInput, half: number): number =>
  (doubt.of === 'percent' || doubt.of === 'ratio' ? half / Math.abs(value) : half) / Math.sqrt(3)

/** The loopback replaces whatever is known of the unit and its driver. */
function loopback(strip: Strip, own: StripUncertainty): NextMeasurement[] {
  const { timed, linear } = own
  if (strip.monitor.route !== 'software' || linear.values.length === timed) return []
  const at = linear.values.length - 1
  const before = own.u(at)
  const unit = own
    .figure(at)
    .shares.filter(({ input }) => input.includes('.latency.') || input === 'system.roundTrips')
    .reduce((sum, { share }) => sum + share, 0)
  const after = Math.sqrt(before ** 2 * (1 - unit) + LOOPBACK.u ** 2)
  return [
    {
      what: 'Measure the round trip by loopback',
      strip: strip.id,
      figure: 'roundTrip',
      before,
      after,
      minutes: LOOPBACK.minutes,
      place: { at: 'bench', page: 'round-trip' },
    },
  ]
}
