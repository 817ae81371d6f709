import { seeded } from '../numeric/random'

/** Formants of five vowels: frequencies and bandwidths, Hz (values of a speaking voice, from memory). */
const VOWELS = [
  { formants: [700, 1220, 2600], seconds: 0.34 },
  { formants: [530, 1840, 2480], seconds: 0.28 },
  { formants: [270, 2290, 3010], seconds: 0.3 },
  { formants: [570, 840, 2410], seconds: 0.36 },
  { formants: [300, 870, 2240], seconds: 0.32 },
] as const
const BANDWIDTHS = [80, 100, 140] as const
const PAUSE = 0.14
/** Attack and release of each vowel, s. */
const EDGE = 0.04

/**
 * A synthetic voice that speaks five vowels over and over: a pulse of the vocal folds through resonances. It belongs to nobody, and
 * what a path does to a voice is heard in it.
 * @returns samples whose peak is 1
 */
export function syntheticVoice(sampleRate: number, seconds: number, pitch = 118, seed = 7): Float64Array {
  const random = seeded(seed)
  const out = new Float64Array(Math.round(sampleRate * seconds))
  for (let at = 0, i = 0; at < out.length; i++) {
    const { formants, seconds: long } = VOWELS[i % VOWELS.length] as (typeof VOWELS)[number]
    const length = Math.min(out.length - at, Math.round(long * sampleRate))
    const voiced = resonant(folds(sampleRate, length, pitch * (0.94 + 0.12 * random()), random), sampleRate, formants)
    const edge = Math.round(EDGE * sampleRate)
    // The folds push one way: every other vowel is turned over, so that the whole has no constant part.
    const way = i % 2 === 0 ? 1 : -1
    for (let n = 0; n < length; n++)
      out[at + n] = way * (voiced[n] as number) * Math.min(1, n / edge, (length - n) / edge)
    at += length + Math.round(PAUSE * sampleRate)
  }
  const peak = out.reduce((most, x) => Math.max(most, Math.abs(x)), 0) || 1
  return out.map((x) => x / peak)
}

/** The flow of the vocal folds, differentiated: a saw that falls steeply at each closure, with a little breath. */
function folds(sampleRate: number, length: number, pitch: number, random: () => number): Float64Array {
  const out = new Float64Array(length)
  let phase = 0
  for (let n = 0; n < length; n++) {
    // A voice is never quite steady.
    phase += (pitch * (1 + 0.01 * Math.sin((2 * Math.PI * 5 * n) / sampleRate))) / sampleRate
    if (phase >= 1) phase -= 1
    out[n] = (phase < 0.6 ? phase / 0.6 : (1 - phase) / 0.4) ** 2 - 0.35 + 0.02 * (random() - 0.5)
  }
  return out
}

/** Two-pole resonances in a row. */
function resonant(samples: Float64Array, sampleRate: number, formants: readonly number[]): Float64Array {
  let signal = samples
  formants.forEach((frequency, k) => {
    const radius = Math.exp((-Math.PI * (BANDWIDTHS[k] ?? 100)) / sampleRate)
    const [a1, a2] = [2 * radius * Math.cos((2 * Math.PI * frequency) / sampleRate), -radius * radius]
    const out = new Float64Array(signal.length)
    for (let n = 0; n < signal.length; n++)
      out[n] = (1 - a1 - a2) * (signal[n] as number) + a1 * (out[n - 1] ?? 0) + a2 * (out[n - 2] ?? 0)
    signal = out
  })
  return signal
}
