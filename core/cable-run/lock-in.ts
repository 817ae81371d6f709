import { mean, median, standardDeviation } from '../numeric/statistics'

/** A tone whose frequency is known, in samples. */
export interface LockedTone {
  /** dBFS. */
  level: number
  /** Standard deviation of the level from block to block, dB. */
  scatter: number
  /** Standard error of the level by the noise around it, dB. */
  error: number
  /** Its phase jumps: samples were lost on the way. */
  jumps: boolean
}

/** A block holds whole periods of every multiple of 10 Hz, so that neither offset nor hum leaks into it, s. */
const BLOCK = 0.1
/** dB of a small relative change of an amplitude. */
const DB_PER_PART = 20 / Math.LN10

/**
 * Measures a tone of a known frequency by correlation over blocks (lock-in detection). The noise is told from the
 * phase of neighbouring blocks, which a level that jumps does not move.
 * @param frequency a multiple of 10 Hz; one that is no multiple of 50 or 60 Hz is free of hum
 * @returns `null` for less than three blocks, or where no tone stands out of the noise
 */
export function lockedTone(samples: Float64Array, sampleRate: number, frequency: number): LockedTone | null {
  const blocks = blocksOf(samples, sampleRate, frequency)
  const count = blocks.length
  if (count < 3) return null
  const whole = mean(blocks.map(({ re, im }) => re * re + im * im))
  // The power of the difference of two blocks follows an exponential law, whose median a few jumps do not move.
  const steps = blocks.slice(1).map(({ re, im }, b) => {
    const before = blocks[b] as Phasor
    return (re - before.re) ** 2 + (im - before.im) ** 2
  })
  const unsteady = median(steps) / (2 * Math.LN2)
  const power = whole - unsteady
  if (!(power > LEAST_OVER * unsteady)) return null
  // A level that jumps leaves the phase alone: what is seen across it is noise.
  const across = blocks.slice(1).map((block, b) => {
    const before = blocks[b] as Phasor
    return (block.im * before.re - block.re * before.im) ** 2 / (before.re ** 2 + before.im ** 2)
  })
  const noise = median(across) / MEDIAN_OF_SQUARE
  const sizes = blocks.map(({ re, im }) => 20 * Math.log10(Math.hypot(re, im)))
  return {
    level: 10 * Math.log10(power),
    scatter: standardDeviation(sizes),
    error: DB_PER_PART * Math.sqrt(noise / (2 * power * count)),
    // The block in which samples are lost is skipped: the ones on its two sides tell.
    jumps: blocks.slice(2).some((block, b) => turnBetween(blocks[b] as Phasor, block) > JUMP),
  }
}

function blocksOf(samples: Float64Array, sampleRate: number, frequency: number): Phasor[] {
  const length = Math.round(BLOCK * sampleRate)
  return Array.from({ length: Math.floor(samples.length / length) }, (_, b) =>
    phasor(samples, b * length, length, frequency / sampleRate),
  )
}

/** What is in the samples at a frequency, a tone or not: the mean power of the blocks, dBFS. */
export const powerAt = (samples: Float64Array, sampleRate: number, frequency: number): number =>
  10 * Math.log10(mean(blocksOf(samples, sampleRate, frequency).map(({ re, im }) => re * re + im * im)))

/** A phase that turns by more between two blocks jumped; two clocks turn it by a hundredth of that, rad. */
const JUMP = 0.3
const turnBetween = (a: Phasor, b: Phasor) => Math.abs(Math.atan2(b.im * a.re - b.re * a.im, b.re * a.re + b.im * a.im))

/** Median of the square of a normal variable of variance 1. */
const MEDIAN_OF_SQUARE = 0.4549
/** A tone has so many times the power of the noise in its blocks: 10 dB. */
const LEAST_OVER = 10

interface Phasor {
  re: number
  im: number
}

/** Amplitude and phase of a frequency in a block, 1 for full scale. `turns` per sample. */
function phasor(samples: Float64Array, from: number, length: number, turns: number): Phasor {
  const omega = 2 * Math.PI * turns
  const [cos, sin] = [Math.cos(omega), Math.sin(omega)]
  let [c, s] = [Math.cos(omega * from), Math.sin(omega * from)]
  let [re, im] = [0, 0]
  for (let i = 0; i < length; i++) {
    const x = samples[from + i] as number
    re += x * c
    im -= x * s
    const turned = c * cos - s * sin
    s = s * cos + c * sin
    c = turned
  }
  return { re: (2 * re) / length, im: (2 * im) / length }
}

/** The amplitude of a frequency in the whole of the samples, dBFS: for many tones that are played at once, each with whole periods. */
export function levelAt(samples: Float64Array, sampleRate: number, frequency: number): number {
  const { re, im } = phasor(samples, 0, samples.length, frequency / sampleRate)
  return 20 * Math.log10(Math.hypot(re, im))
}
