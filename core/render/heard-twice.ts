import { delayed } from '../signals/fractional-delay'

/**
 * A sound heard by two paths at once: the later one by so much later, louder (+) or softer (−) than the first.
 * @returns samples as long as the sound and its delay
 */
export function heardTwice(
  sound: Float64Array,
  sampleRate: number,
  delayMs: number,
  difference: number,
  polarity: 1 | -1 = 1,
): Float64Array {
  const late = (delayMs * sampleRate) / 1000
  const length = sound.length + Math.ceil(late) + 1
  const second = delayed(sound, length, late, 0)
  const gain = polarity * 10 ** (difference / 20)
  return second.map((x, i) => (sound[i] ?? 0) + gain * x)
}
