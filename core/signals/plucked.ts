import { seeded } from '../numeric/random'

/** Notes of a broken chord over and over, Hz from the lowest: semitones above it. */
const CHORD = [0, 7, 12, 16, 19, 16, 12, 7] as const
const NOTE = 0.42
/** s */
const ATTACK = 0.006
/** Each string loses that much of its energy a second, dB (common practice, no source). */
const DECAY = 14

/**
 * A synthetic plucked string: noise in a loop that averages neighbours (Karplus and Strong, 1983; from memory). It is nobody’s instrument.
 * @returns samples whose peak is 1
 */
export function pluckedString(sampleRate: number, seconds: number, lowest = 98, seed = 11): Float64Array {
  const random = seeded(seed)
  const out = new Float64Array(Math.round(sampleRate * seconds))
  const length = Math.round(NOTE * sampleRate)
  for (let at = 0, i = 0; at < out.length; at += length, i++) {
    const pitch = lowest * 2 ** ((CHORD[i % CHORD.length] as number) / 12)
    pluck(out, at, sampleRate / pitch, sampleRate, 0.7 + 0.3 * random(), random)
  }
  const peak = out.reduce((most, x) => Math.max(most, Math.abs(x)), 0) || 1
  return out.map((x) => x / peak)
}

/** One note that rings on under the next ones. */
function pluck(
  out: Float64Array,
  from: number,
  period: number,
  sampleRate: number,
  loud: number,
  random: () => number,
): void {
  const size = Math.max(2, Math.round(period - 0.5))
  const struck = Float64Array.from({ length: size }, () => loud * (2 * random() - 1))
  // A constant part would never die away in the loop.
  const mean = struck.reduce((sum, x) => sum + x, 0) / size
  // A finger is soft: neighbours move together, and the note takes a moment to begin.
  const loop = struck.map(
    (x, i) => 0.25 * (struck.at(i - 1) ?? 0) + 0.5 * x + 0.25 * (struck[(i + 1) % size] ?? 0) - mean,
  )
  const attack = ATTACK * sampleRate
  const kept = 10 ** (-DECAY / 20 / (sampleRate / size))
  const end = Math.min(out.length, from + Math.round(1.6 * sampleRate))
  for (let n = from, k = 0; n < end; n++, k = (k + 1) % size) {
    const now = loop[k] as number
    out[n] = (out[n] as number) + now * Math.min(1, (n - from) / attack)
    loop[k] = 0.5 * kept * (now + (loop[(k + 1) % size] as number))
  }
}
