import { pluckedString } from '../signals/plucked'
import { syntheticVoice } from '../signals/voice'

/** What a simulated performer is. */
export type PerformerKind = 'voice' | 'instrument'

/** A sine’s crest factor, dB: an average in dBFS or dBu is that of a sine. */
export const SINE_CREST = 10 * Math.log10(2)

/** s */
const ENDING = 0.02

/**
 * A performer whose average and peak are as a chain has them, as samples whose size is a level’s: 0 dB is a sine with a peak of 1, whatever
 * the unit. The same seed plays the same.
 */
export function programmeOf(
  kind: PerformerKind,
  sampleRate: number,
  seconds: number,
  { average, peak }: { average: number; peak: number },
  seed: number,
): Float64Array {
  const sound =
    kind === 'voice'
      ? syntheticVoice(sampleRate, seconds, 96 + ((seed * 37) % 90), seed)
      : pluckedString(sampleRate, seconds, 82 + ((seed * 29) % 60), seed)
  const top = 10 ** (peak / 20)
  // It ends, and is not cut off.
  const edge = Math.round(ENDING * sampleRate)
  return withCrest(sound, peak - average + SINE_CREST).map(
    (x, i) => top * x * Math.min(1, (sound.length - 1 - i) / edge),
  )
}

/**
 * A sound with a peak of 1 and another crest factor, found by halving: to a greater one every sample is raised to a power; to a
 * smaller one it
 * is pressed together, x(1 + k)/(|x| + k), which stays smooth where the sound crosses zero.
 * @param parts the sound falls into; the crest is that of the loudest, as a passage is measured
 */
export function withCrest(sound: Float64Array, crest: number, parts = 1): Float64Array {
  const length = Math.floor(sound.length / parts)
  const levels = Array.from({ length: parts }, (_, i) => histogram(sound.subarray(i * length, (i + 1) * length)))
  const crestOf = (shape: (size: number) => number) => Math.min(...levels.map((each) => crestThrough(each, shape)))
  const family = crestOf((size) => size) < crest ? raisedTo : pressedBy
  let [low, high] = [0, 12]
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2
    const further = family === raisedTo ? crestOf(family(middle)) < crest : crestOf(family(middle)) > crest
    if (further) low = middle
    else high = middle
  }
  const shape = family((low + high) / 2)
  return sound.map((x) => Math.sign(x) * shape(Math.abs(x)))
}

/** Shapes of a size from 0 to 1, the further from itself the greater `far`, 0 for none. */
const raisedTo = (far: number) => (size: number) => size ** (2 ** (far / 2))
const pressedBy = (far: number) => {
  const k = 2 ** (6 - 2 * far)
  return (size: number) => (size * (1 + k)) / (size + k)
}

/** How many samples have which level; far fewer numbers to raise to powers than there are samples. */
interface Levels {
  counts: Float64Array
  total: number
}
const [DEEPEST, STEP] = [-160, 0.05]

function histogram(sound: Float64Array): Levels {
  const counts = new Float64Array(-DEEPEST / STEP + 1)
  for (const x of sound) {
    if (x === 0) continue
    const level = 20 * Math.log10(Math.abs(x))
    if (level >= DEEPEST) counts[Math.round(-level / STEP)] = (counts[Math.round(-level / STEP)] as number) + 1
  }
  return { counts, total: sound.length }
}

function crestThrough({ counts, total }: Levels, shape: (size: number) => number): number {
  let sum = 0
  for (let i = 0; i < counts.length; i++)
    if (counts[i]) sum += (counts[i] as number) * shape(10 ** ((-i * STEP) / 20)) ** 2
  return -10 * Math.log10(sum / total)
}
