import { power } from '../numeric/power'
import type { Level } from '../units'
import type { CarriedNoise, Origin, Signal } from './signal'
import { add, noiseLevel } from './signal'
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

const amplitude = (level: number) => power(level / 2)

/** What the peak of many unrelated sounds tends to lie over their average, 10.2 dB (own simulation of speech-like signals). */
const TENDS_TO = amplitude(10.2)

/** The square of a sine's peak over its power: levels of peaks are those of the sine that has them. */
const SINE = 2

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
    sumOf(groups, (each) => each.power),
    10,
  )
  const bound = sumOf(groups, (each) => each.peak)
  const likely = Math.min(bound, likelyPeak(groups))
  const { surge, surges } = worstSurge(groups, bound, likely)
  const unit = (arriving[0] as Signal).unit
  const signal: Signal = {
    strip: bus,
    unit,
    average: average as Level,
    peak: level(likely, 20) as Level,
    surgePeak: level(surge, 20) as Level,
    shift: 0,
    noisePower: 0,
    noise: [],
    origins: originsOf(arriving, average),
    clipped: arriving.find((each) => each.clipped)?.clipped ?? null,
  }
  noises(signal, arriving, groups.length < arriving.length)
  const sum: Sum = {
    unit,
    average: signal.average,
    likely: signal.peak,
    bound: level(bound, 20) as Level,
    surge: signal.surgePeak,
    surges,
    noise: noiseLevel(signal),
    brought: broughtBy(arriving),
  }
  return { signal, sum }
}

const level = (value: number, factor: 10 | 20) => factor * Math.log10(value)

/** Signals that have a sound in common, together; between groups nothing is related. Power, and amplitudes of its peaks. */
interface Group {
  readonly strip: string
  readonly power: number
  readonly peak: number
  readonly surge: number
}

function groupsOf(arriving: readonly Signal[]): Group[] {
  const bySource = new Map<string, Signal[]>()
  for (const signal of arriving) {
    const related = new Set(signal.origins.flatMap(({ source }) => [bySource.get(source) ?? []]))
    const [group = [], ...others] = related
    const joining = [...others.flat(), signal]
    group.push(...joining)
    for (const { origins } of joining) for (const { source } of origins) bySource.set(source, group)
  }
  return [...new Set(bySource.values())].map((signals) => ({
    strip: (signals[0] as Signal).strip,
    power: powerOf(signals),
    peak: sumOf(signals, (each) => amplitude(each.peak)),
    // One of them surging: all ways of the one sound surge together.
    surge: sumOf(signals, (each) => amplitude(each.surgePeak)),
  }))
}

const sumOf = <T>(items: readonly T[], value: (item: T) => number) => {
  let sum = 0
  for (const each of items) sum += value(each)
  return sum
}

/** The power of related signals: each sound's ways in amplitude, different sounds in power. */
const powerOf = (signals: readonly Signal[]): number =>
  signals.length === 1
    ? power((signals[0] as Signal).average)
    : sumOf([...soundsOf(signals).values()], (each) => each * each)

/** The amplitude of every sound in some signals. */
function soundsOf(signals: readonly Signal[]): Map<string, number> {
  const sounds = new Map<string, number>()
  for (const { average, origins } of signals)
    for (const { source, below } of origins) sounds.set(source, (sounds.get(source) ?? 0) + amplitude(average - below))
  return sounds
}

const originsOf = (arriving: readonly Signal[], average: number): Origin[] =>
  [...soundsOf(arriving)].map(([source, each]) => ({ source, below: average - level(each, 20) }))

/**
 * The greater of one peak with the RMS of all others, and what many sounds tend to, in amplitude.
 * @param surging the group that surges meanwhile; its average rises with its peak
 */
function likelyPeak(groups: readonly Group[], surging?: Group): number {
  const powerNow = (each: Group) => (each === surging ? each.power * (each.surge / each.peak) ** 2 : each.power)
  const total = sumOf(groups, powerNow)
  let greatest = TENDS_TO * Math.sqrt(total)
  for (const each of groups) {
    const peak = each === surging ? each.surge : each.peak
    const rest = Math.max(0, total - powerNow(each))
    greatest = Math.max(greatest, peak + Math.sqrt(rest / SINE))
  }
  return greatest
}

/** The strip whose surge brings the sum highest. */
function worstSurge(groups: readonly Group[], bound: number, likely: number): { surge: number; surges: string } {
  let worst = { surge: likely, surges: groups[0]?.strip ?? '' }
  for (const group of groups) {
    if (group.surge <= group.peak) continue
    const surge = Math.min(bound - group.peak + group.surge, likelyPeak(groups, group))
    if (surge > worst.surge) worst = { surge, surges: group.strip }
  }
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
  const rows = arriving.map((signal) => {
    const noise = noiseLevel(signal)
    return { signal, noise, power: power(signal.average), noisePower: noise === null ? 0 : power(noise) }
  })
  const total = sumOf(rows, (each) => each.power)
  const totalNoise = sumOf(rows, (each) => each.noisePower)
  return rows
    .map(({ signal, noise, power, noisePower }): Brought => ({
      strip: signal.strip,
      average: signal.average,
      peak: signal.peak,
      noise,
      share: power / total,
      noiseShare: totalNoise === 0 ? 0 : noisePower / totalNoise,
    }))
    .sort((a, b) => b.average - a.average)
}
