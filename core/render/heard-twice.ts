import { delayed } from '../signals/fractional-delay'

/**
 * A sound heard by two paths at once: the later one by so much later, louder (+) or softer (−) than the first.
 * @returns samples as long as the sound and its delay
 */
export function heardTwice(sound: Float64Array, sampleRate: number, delayMs: number, difference: number): Float64Array {
  const late = (delayMs * sampleRate) / 1000
  const length = sound.length + Math.ceil(late) + 1
  const second = delayed(sound, length, late, 0)
  const gain = 10 ** (difference / 20)
  return second.map((x, i) => (sound[i] ?? 0) + gain * x)
}

/** RMS of what is played to somebody's ears, and the most that it may peak, dBFS (AES17): quiet, whatever the sound was. */
export const PLAYED = { rms: -32, peak: -12 } as const

/** Brings sounds to a safe level together, so that they stay as loud against each other as they are; fades the ends. */
export function atSafeLevel(sounds: readonly Float64Array[], sampleRate: number, fade = 0.25): Float64Array[] {
  const power = Math.max(...sounds.map((each) => each.reduce((sum, x) => sum + x * x, 0) / Math.max(1, each.length)))
  const peak = Math.max(...sounds.map((each) => each.reduce((most, x) => Math.max(most, Math.abs(x)), 0)))
  if (power === 0) return sounds.map((each) => each.slice())
  const gain = Math.min(10 ** (PLAYED.rms / 20) / Math.sqrt(2 * power), 10 ** (PLAYED.peak / 20) / peak)
  const edge = Math.round(fade * sampleRate)
  return sounds.map((each) => each.map((x, i) => gain * x * Math.min(1, i / edge, (each.length - 1 - i) / edge)))
}
