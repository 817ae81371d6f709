import { levelAt } from './lock-in'

/**
 * Frequencies of the response, a third of an octave apart (IEC 61260-1), each moved to the nearest prime or to a number that no mains
 * line and no other tone’s harmonic falls on. Whole hertz, so that a second holds whole periods of each.
 */
export const RESPONSE_TONES = [
  20, 26, 31, 41, 53, 63, 79, 103, 127, 163, 199, 251, 317, 397, 503, 631, 797, 997, 1249, 1597, 1999, 2503, 3163, 3989,
  5003, 6301, 7993, 10_007, 12_503, 15_991, 19_997,
] as const

/** Against which the others count, Hz. */
const AGAINST = 997

/** The response at a frequency, dB against that at 1 kHz. */
export interface ResponsePoint {
  frequency: number
  level: number
}

/** Seconds that are looked at, after so many in which the filters come to rest. */
const [LOOKED_AT, COMES_TO_REST] = [2, 0.5]

/** All tones at once: each equally loud, their phases spread so that the peak stays low (Newman’s phases; from memory). */
export function responseSignal(sampleRate: number, peak: number): Float64Array {
  const length = Math.round((LOOKED_AT + COMES_TO_REST + 0.1) * sampleRate)
  const tones = usable(sampleRate)
  const samples = new Float64Array(length)
  tones.forEach((frequency, k) => {
    const omega = (2 * Math.PI * frequency) / sampleRate
    const phase = (Math.PI * k * k) / tones.length
    for (let i = 0; i < length; i++) samples[i] = (samples[i] as number) + Math.cos(omega * i + phase)
  })
  const most = samples.reduce((high, x) => Math.max(high, Math.abs(x)), 0)
  const scale = 10 ** (peak / 20) / most
  for (let i = 0; i < length; i++) samples[i] = (samples[i] as number) * scale
  return samples
}

/**
 * The response from the tones as they were played and came back.
 * @param driftPpm how much faster the recording’s clock runs than the playing one’s
 */
export function responseOf(
  played: Float64Array,
  recorded: Float64Array,
  sampleRate: number,
  driftPpm: number,
): ResponsePoint[] {
  const from = Math.round(COMES_TO_REST * sampleRate)
  const to = from + Math.round(LOOKED_AT * sampleRate)
  const [sent, came] = [played.subarray(from, to), recorded.subarray(from, to)]
  const points = usable(sampleRate).map((frequency) => ({
    frequency,
    level: levelAt(came, sampleRate, frequency / (1 + driftPpm * 1e-6)) - levelAt(sent, sampleRate, frequency),
  }))
  const reference = points.find(({ frequency }) => frequency === AGAINST)?.level ?? 0
  return points.map(({ frequency, level }) => ({ frequency, level: level - reference }))
}

const usable = (sampleRate: number) => RESPONSE_TONES.filter((frequency) => frequency < 0.46 * sampleRate)
