import { power } from '../numeric/power'
import type { Strip, Together } from '../model'
import type { Level } from '../units'
import type { CarriedNoise, OpenMicrophone, Origin, Signal } from './signal'
import { add, noiseLevel } from './signal'
import type { SignalUnit } from '../gear/two-port'

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
  /** The likely peak while the sound whose surge counts most surges. */
  readonly surge: Level
  /** A strip that brings that sound. */
  readonly surges: string
  readonly noise: Level | null
  /** The loudest first. */
  readonly brought: readonly Brought[]
}

const amplitude = (level: number) => power(level / 2)
const decibels = (value: number) => 20 * Math.log10(value)

/** What the peak of many unrelated sounds tends to lie over their average, 10.2 dB (own simulation of speech-like signals). */
const TENDS_TO = amplitude(10.2)

/** The square of a sine's peak over its power: levels of peaks are those of the sine that has them. */
const SINE = 2

/** One sound with all its ways to a bus together, as amplitudes. */
interface Sound {
  readonly source: string
  readonly strip: string
  average: number
  peak: number
  surge: number
}

/**
 * Signals of a bus added up. First each sound’s own ways, in amplitude; then the sounds, which are unrelated: averages in power.
 * Noises add in power save the very same noise on two ways, which adds in amplitude.
 *
 * Likely peak: the greater of one sound’s peak with the RMS of all others, and the sum’s average + 10.2 dB; never over the
 * highest possible peak, all peaks of all ways in amplitude. One sound at a time surges.
 * Examples: three strips of −20/−9, −26/−12 and −30/−20 dB: average −18.69, likely −8.03, bound −3.02. Four of −30/−19, each direct
 * and by an effects bus 12 dB lower: average −22.03, likely −11.83, bound −5.01.
 * @param arriving at least one
 */
export function sumSignals(
  { id: bus, together = 'all' }: Pick<Strip, 'id' | 'together'>,
  arriving: readonly Signal[],
): { signal: Signal; sum: Sum } {
  const unit = (arriving[0] as Signal).unit
  const noise: Signal = emptySum(bus, unit)
  addNoises(noise, arriving)
  const all = soundsOf(arriving)
  const mostAtOnce = atOnce(together, all.length)
  const sounding = mostAtOnce < all.length ? loudest(all, mostAtOnce, 'average') : all
  const peaking = mostAtOnce < all.length ? loudest(all, mostAtOnce, 'peak') : all
  // Whoever is silent leaves the noise of an open way.
  const silent = sounding === all ? 0 : amplitude(noiseLevel(noise) ?? -Infinity) / Math.sqrt(SINE)
  const average = Math.sqrt(sumOf(sounding, (each) => each.average ** 2))
  const bound = boundOf(arriving, all, peaking) + silent
  const likely = Math.min(bound, likelyPeak(peaking) + silent)
  const { surge, surges } = worstSurge(peaking, bound, likely, silent)
  const signal: Signal = {
    ...noise,
    average: decibels(average) as Level,
    peak: decibels(likely) as Level,
    surgePeak: decibels(surge) as Level,
    bound: decibels(bound) as Level,
    origins: originsOf(sounding, average, likely, surge),
    microphones: microphonesOf(arriving),
    clipped: arriving.find((each) => each.clipped)?.clipped ?? null,
  }
  const sum: Sum = {
    unit,
    average: signal.average,
    likely: signal.peak,
    bound: signal.bound,
    surge: signal.surgePeak,
    surges,
    noise: noiseLevel(signal),
    brought: broughtBy(arriving),
  }
  return { signal, sum }
}

/** How many of a bus’s sounds are heard at once. */
const atOnce = (together: Together, sounds: number): number =>
  together === 'all' ? sounds : together === 'in-turn' ? 1 : together

const emptySum = (strip: string, unit: SignalUnit): Signal => ({
  strip,
  unit,
  average: 0 as Level,
  peak: 0 as Level,
  surgePeak: 0 as Level,
  bound: 0 as Level,
  shift: 0,
  noisePower: 0,
  noise: [],
  origins: [],
  openGain: 0,
  microphones: [],
  clipped: null,
})

/** Every sound that arrives, its ways added in amplitude. */
function soundsOf(arriving: readonly Signal[]): readonly Sound[] {
  const sounds = new Map<string, Sound>()
  for (const { strip, average, peak, surgePeak, origins } of arriving)
    for (const origin of origins) {
      const way = {
        average: amplitude(average - origin.average),
        peak: amplitude(peak - origin.peak),
        surge: amplitude(surgePeak - origin.surge),
      }
      const known = sounds.get(origin.source)
      if (!known) sounds.set(origin.source, { source: origin.source, strip, ...way })
      else {
        known.average += way.average
        known.peak += way.peak
        known.surge += way.surge
      }
    }
  return [...sounds.values()]
}

const loudest = (sounds: readonly Sound[], count: number, by: 'average' | 'peak'): readonly Sound[] =>
  [...sounds].sort((a, b) => b[by] - a[by]).slice(0, count)

/** Every peak on every way at one moment; of sounds that come in turn those of the loudest alone. */
function boundOf(arriving: readonly Signal[], all: readonly Sound[], peaking: readonly Sound[]): number {
  const everything = sumOf(arriving, (each) => amplitude(each.bound))
  if (peaking === all) return everything
  // A way whose parts are no longer told apart may be one of them as a whole.
  return Math.min(
    everything,
    Math.max(
      sumOf(peaking, (each) => each.peak),
      ...arriving.map((each) => amplitude(each.bound)),
    ),
  )
}

function sumOf<T>(items: readonly T[], value: (item: T) => number): number {
  let sum = 0
  for (const each of items) sum += value(each)
  return sum
}

const originsOf = (sounds: readonly Sound[], average: number, peak: number, surge: number): Origin[] =>
  sounds.map((each) => ({
    source: each.source,
    average: decibels(average / each.average),
    peak: decibels(peak / each.peak),
    surge: decibels(surge / each.surge),
  }))

/** The microphones that are heard; one that arrives on two ways is one, its ways in amplitude. */
function microphonesOf(arriving: readonly Signal[]): OpenMicrophone[] {
  const found = new Map<string, { strips: string[]; gain: number }>()
  for (const { microphones, openGain } of arriving)
    for (const { device, strips, gain } of microphones) {
      const known = found.get(device)
      const way = amplitude(gain + openGain)
      if (!known) found.set(device, { strips: [...strips], gain: way })
      else {
        known.gain += way
        known.strips.push(...strips.filter((each) => !known.strips.includes(each)))
      }
    }
  return [...found].map(([device, { strips, gain }]) => ({ device, strips, gain: decibels(gain) }))
}

/**
 * The greater of one peak with the RMS of all others, and what many sounds tend to, in amplitude.
 * @param surging the sound that surges meanwhile; its average rises with its peak
 */
function likelyPeak(sounds: readonly Sound[], surging?: Sound): number {
  const powerNow = (each: Sound) => (each === surging ? (each.average * each.surge) / each.peak : each.average) ** 2
  const total = sumOf(sounds, powerNow)
  let greatest = sounds.length > 1 ? TENDS_TO * Math.sqrt(total) : 0
  for (const each of sounds) {
    const peak = each === surging ? each.surge : each.peak
    const rest = Math.max(0, total - powerNow(each))
    greatest = Math.max(greatest, peak + Math.sqrt(rest / SINE))
  }
  return greatest
}

/** The sound whose surge brings the sum highest. */
function worstSurge(
  sounds: readonly Sound[],
  bound: number,
  likely: number,
  silent: number,
): { surge: number; surges: string } {
  let worst = { surge: likely, surges: sounds[0]?.strip ?? '' }
  for (const sound of sounds) {
    if (sound.surge <= sound.peak) continue
    const surge = Math.min(bound - sound.peak + sound.surge, likelyPeak(sounds, sound) + silent)
    if (surge > worst.surge) worst = { surge, surges: sound.strip }
  }
  return worst
}

/** Every noise of all that arrive; one that arrives on two ways is one noise, its ways in amplitude. */
function addNoises(signal: Signal, arriving: readonly Signal[]): void {
  const known = new Map<string, { noise: CarriedNoise; level: number }>()
  for (const { noise, shift } of arriving)
    for (const each of noise) {
      const key = `${each.device} ${each.name}`
      const before = known.get(key)
      const now = each.below + shift
      if (before) before.level = decibels(amplitude(before.level) + amplitude(now))
      else known.set(key, { noise: each, level: now })
    }
  for (const { noise, level } of known.values()) add(signal, noise.strip, noise.stage, noise.device, noise.name, level)
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
