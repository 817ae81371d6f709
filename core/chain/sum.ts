import { power } from '../numeric/power'
import type { Level } from '../units'
import type { CarriedNoise, Origin, Signal } from './signal'
import { add } from './signal'
import type { SignalUnit } from './two-port'

/** What one strip brings to a bus, as it arrives there. */
export interface Brought {
  readonly strip: string
  readonly average: Level
  readonly peak: Level
  readonly noise: Level | null
  /** Part of the powers of all that arrive, 0…1. */
  readonly share: number
  readonly noiseShare: number
}

/** Where strips meet. */
export interface Sum {
  readonly unit: SignalUnit
  readonly average: Level
  /** What the peak of the sum is likely to be. */
  readonly likely: Level
  /** What it can be at the very most: every peak at the same moment. */
  readonly bound: Level
  /** The likely peak while the strip whose surge counts most surges. */
  readonly surge: Level
  /** That strip. */
  readonly surges: string
  readonly noise: Level | null
  /** The loudest first. */
  readonly brought: readonly Brought[]
}

/** What the peak of many unrelated sounds tends to lie over their average, dB (own simulation of speech-like signals). */
const TENDS_TO = 10.2

/** A sine's peak over its RMS, dB: levels of peaks are those of the sine that has them. */
const SINE = 10 * Math.log10(2)

const amplitude = (level: number) => power(level / 2)

/**
 * Signals of a bus that meet: unrelated ones add in power, one sound that arrives twice in amplitude, and noises in power
 * save the very same noise on two ways.
 *
 * Likely peak: the greater of one strip's peak with the RMS of all others, and the sum's average + 10.2 dB; never over the
 * certain bound, all peaks in amplitude. One strip at a time surges. Three of −20/−9, −26/−12 and −30/−20 dB: average
 * −18.69, likely −8.03, bound −3.02.
 * @param arriving at least one
 */
export function meet(bus: string, arriving: readonly Signal[]): { signal: Signal; sum: Sum } {
  const groups = groupsOf(arriving)
  const average = level(
    groups.reduce((total, each) => total + power(each.average), 0),
    10,
  )
  const bound = level(
    groups.reduce((total, each) => total + amplitude(each.peak), 0),
    20,
  )
  const likely = Math.min(bound, likelyPeak(groups))
  const { surge, surges } = worstSurge(groups, likely)
  const unit = (arriving[0] as Signal).unit
  const signal: Signal = {
    strip: bus,
    unit,
    average: average as Level,
    peak: likely as Level,
    surgePeak: surge as Level,
    shift: 0,
    noisePower: 0,
    noise: [],
    origins: originsOf(arriving, average),
    clipped: arriving.find((each) => each.clipped)?.clipped ?? null,
  }
  noises(signal, arriving, groups.length < arriving.length)
  const noise = signal.noise.length === 0 ? null : (level(signal.noisePower, 10) as Level)
  const sum: Sum = {
    unit,
    average: signal.average,
    likely: signal.peak,
    bound: bound as Level,
    surge: signal.surgePeak,
    surges,
    noise,
    brought: broughtBy(arriving),
  }
  return { signal, sum }
}

const level = (value: number, factor: 10 | 20) => factor * Math.log10(value)

/** Signals that have a sound in common; between groups nothing is related. */
interface Group {
  average: number
  peak: number
  surgePeak: number
  strip: string
}

function groupsOf(arriving: readonly Signal[]): Group[] {
  const groups: Signal[][] = []
  for (const signal of arriving) {
    const related = groups.filter((group) => group.some((each) => shareOrigin(each, signal)))
    const merged = [...related.flat(), signal]
    for (const each of related) groups.splice(groups.indexOf(each), 1)
    groups.push(merged)
  }
  return groups.map((group) => {
    const first = group[0] as Signal
    if (group.length === 1) return first
    const peak = level(
      sumOf(group, (each) => amplitude(each.peak)),
      20,
    )
    // One of them surging: all ways of the one sound surge together.
    const surgePeak = level(
      sumOf(group, (each) => amplitude(each.surgePeak)),
      20,
    )
    return { strip: first.strip, average: together(group), peak, surgePeak }
  })
}

const sumOf = <T>(items: readonly T[], value: (item: T) => number) => items.reduce((sum, each) => sum + value(each), 0)
const shareOrigin = (one: Signal, other: Signal) =>
  one.origins.some(({ source }) => other.origins.some((each) => each.source === source))

/** The average of related signals: each sound's ways in amplitude, different sounds in power. */
function together(group: readonly Signal[]): number {
  return level(
    sumOf([...soundsOf(group).values()], (each) => each * each),
    10,
  )
}

/** The amplitude of every sound in some signals. */
function soundsOf(signals: readonly Signal[]): Map<string, number> {
  const sounds = new Map<string, number>()
  for (const { average, origins } of signals)
    for (const { source, below } of origins) sounds.set(source, (sounds.get(source) ?? 0) + amplitude(average - below))
  return sounds
}

const originsOf = (arriving: readonly Signal[], average: number): Origin[] =>
  [...soundsOf(arriving)].map(([source, each]) => ({ source, below: average - level(each, 20) }))

/** The greater of one peak with the RMS of all others, and what many sounds tend to. */
function likelyPeak(groups: readonly Group[]): number {
  const total = sumOf(groups, (each) => power(each.average))
  let greatest = level(total, 10) + TENDS_TO
  for (const each of groups) {
    const rest = Math.max(0, total - power(each.average))
    greatest = Math.max(greatest, level(amplitude(each.peak) + Math.sqrt(rest / power(SINE)), 20))
  }
  return greatest
}

/** The strip whose surge brings the sum highest; its average rises with its peak. */
function worstSurge(groups: readonly Group[], likely: number): { surge: number; surges: string } {
  let worst = { surge: likely, surges: groups[0]?.strip ?? '' }
  groups.forEach((group, i) => {
    const by = group.surgePeak - group.peak
    if (by <= 0) return
    const surging = groups.map((each, k) =>
      k === i ? { ...each, peak: each.surgePeak, average: each.average + by } : each,
    )
    const surge = Math.min(
      level(
        sumOf(surging, (each) => amplitude(each.peak)),
        20,
      ),
      likelyPeak(surging),
    )
    if (surge > worst.surge) worst = { surge, surges: group.strip }
  })
  return worst
}

/**
 * Every noise of all that arrive; one that arrives on two ways is one noise, its ways in amplitude. Signals without a sound in
 * common have no noise in common either.
 */
function noises(signal: Signal, arriving: readonly Signal[], related: boolean): void {
  if (!related) {
    for (const { noise, shift } of arriving)
      for (const each of noise) add(signal, each.strip, each.stage, each.name, each.below + shift)
    return
  }
  const known = new Map<string, { noise: CarriedNoise; level: number }>()
  for (const { noise, shift } of arriving)
    for (const each of noise) {
      const key = `${each.stage} ${each.name}`
      const before = known.get(key)
      const now = each.below + shift
      known.set(key, { noise: each, level: before ? level(amplitude(before.level) + amplitude(now), 20) : now })
    }
  for (const { noise, level: each } of known.values()) add(signal, noise.strip, noise.stage, noise.name, each)
}

function broughtBy(arriving: readonly Signal[]): Brought[] {
  const noiseOf = ({ noise, noisePower, shift }: Signal) => (noise.length === 0 ? null : level(noisePower, 10) + shift)
  const total = sumOf(arriving, (each) => power(each.average))
  const totalNoise = sumOf(arriving, (each) => power(noiseOf(each) ?? -Infinity))
  return arriving
    .map((each): Brought => {
      const noise = noiseOf(each)
      return {
        strip: each.strip,
        average: each.average,
        peak: each.peak,
        noise: noise as Level | null,
        share: power(each.average) / total,
        noiseShare: noise === null || totalNoise === 0 ? 0 : power(noise) / totalNoise,
      }
    })
    .sort((a, b) => b.average - a.average)
}
