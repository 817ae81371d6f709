import { mean, median, standardDeviation } from '../../numeric/statistics'

/** Something that is lost or torn in a recording. */
export interface Dropout {
  /** s from the beginning. */
  at: number
  kind: DropoutKind
}
/** `gap`: a stretch of nothing with hard edges; `repeat`: a buffer that is played twice; `jump`: one step that no signal makes. */
export type DropoutKind = 'gap' | 'repeat' | 'jump'

export interface Dropouts {
  count: number
  /** Of each kind. */
  kinds: Record<DropoutKind, number>
  /** They come at even distances, s; `null` where they do not. */
  every: number | null
  first: Dropout[]
}

/** Shorter stretches of nothing are no gap, frames. */
const LEAST_GAP = 16
/** A gap’s edge falls from at least that; a fade does not. */
const EDGE = 0.002
/** Buffers that drivers use, frames. */
const BUFFERS = [32, 44, 48, 64, 88, 96, 128, 192, 256, 441, 480, 512, 1024, 2048]
/** A step stands out of those around by that factor, within so many frames (common practice, no source). */
const STANDS_OUT = 2.5
const AROUND = 48
/** What is kept with its place. */
const MOST = 50
/** Where more of a recording repeats, it is made so. */
const MOST_REPEATED = 0.1
/** Distances that differ by less than that part of their mean are even. */
const EVEN = 0.15
const LEAST_EVEN = 4

/** Gaps, buffers played twice, and jumps of one channel. */
export function findDropouts(samples: Float64Array, sampleRate: number): Dropouts {
  const gaps = gapsOf(samples)
  const repeats = repeatsOf(samples)
  const torn = [...gaps, ...repeats]
  const jumps = jumpsOf(samples).filter((at) => !torn.some(({ from, to }) => at >= from - 4 && at <= to + 4))
  const all = [
    ...gaps.map(({ from }) => ({ at: from / sampleRate, kind: 'gap' as const })),
    ...repeats.map(({ from }) => ({ at: from / sampleRate, kind: 'repeat' as const })),
    ...jumps.map((at) => ({ at: at / sampleRate, kind: 'jump' as const })),
  ].sort((a, b) => a.at - b.at)
  return {
    count: all.length,
    kinds: { gap: gaps.length, repeat: repeats.length, jump: jumps.length },
    every: evenly(all.map(({ at }) => at)),
    first: all.slice(0, MOST),
  }
}

interface Stretch {
  from: number
  to: number
}

function gapsOf(samples: Float64Array): Stretch[] {
  const found: Stretch[] = []
  let from = -1
  for (let i = 0; i <= samples.length; i++) {
    if (samples[i] === 0) {
      if (from < 0) from = i
      continue
    }
    if (from > 0 && i < samples.length && i - from >= LEAST_GAP) {
      const edge = Math.max(Math.abs(samples[from - 1] as number), Math.abs(samples[i] as number))
      if (edge >= EDGE || isHole(samples, from, i)) found.push({ from, to: i })
    }
    from = -1
  }
  return found
}

/**
 * Also where nothing is played a converter never stands still: a short stretch of nothing amid its noise is a gap. A fade or a gate has
 * zeros beside it, or lasts.
 */
function isHole(samples: Float64Array, from: number, to: number): boolean {
  if (to - from > LONGEST_HOLE || from < BESIDE_HOLE || to + BESIDE_HOLE > samples.length) return false
  let zeros = 0
  for (let off = 0; off < BESIDE_HOLE; off++)
    zeros += Number(samples[from - 1 - off] === 0) + Number(samples[to + off] === 0)
  return zeros <= MOST_ZEROS
}
/** Frames. */
const [LONGEST_HOLE, BESIDE_HOLE, MOST_ZEROS] = [8192, 128, 4]

function repeatsOf(samples: Float64Array): Stretch[] {
  const found: Stretch[] = []
  for (const size of BUFFERS) {
    let [run, moved] = [0, 0]
    for (let i = size; i < samples.length; i++) {
      const x = samples[i] as number
      if (x !== 0 && x === samples[i - size]) {
        run++
        if (x !== samples[i - 1]) moved++
      } else [run, moved] = [0, 0]
      // Once a whole buffer is the one before it; what follows may go on with it. A flat top is the same all along, and no repeat.
      if (run === size) {
        if (moved > size / 2) found.push({ from: i + 1 - size, to: i + 1 })
        ;[run, moved] = [0, 0]
      }
    }
  }
  const alone = found
    .sort((a, b) => b.to - b.from - (a.to - a.from))
    .filter((each, i, all) => !all.slice(0, i).some(({ from, to }) => each.from < to && each.to > from))
  const repeated = alone.reduce((sum, { from, to }) => sum + to - from, 0)
  return repeated > MOST_REPEATED * samples.length ? [] : alone.sort((a, b) => a.from - b.from)
}

/**
 * Frames at which the signal steps from one sample to the next as nowhere around: where a piece is missing, it goes on elsewhere. A corner,
 * as clipping makes it, is no step, and noise steps everywhere.
 */
function jumpsOf(samples: Float64Array): number[] {
  const steps = new Float64Array(samples.length)
  for (let i = 1; i < samples.length; i++) steps[i] = Math.abs((samples[i] as number) - (samples[i - 1] as number))
  const found: number[] = []
  for (let at = AROUND; at < samples.length - AROUND; at++) {
    const step = steps[at] as number
    if (step < EDGE || step <= (steps[at - 1] as number) || step < (steps[at + 1] as number)) continue
    if (step > STANDS_OUT * largest(steps, at)) found.push(at)
  }
  return found
}

function largest(steps: Float64Array, at: number): number {
  let most = 0
  for (let off = 2; off <= AROUND; off++) most = Math.max(most, steps[at - off] as number, steps[at + off] as number)
  return most
}

function evenly(times: readonly number[]): number | null {
  if (times.length < LEAST_EVEN) return null
  const apart = times.slice(1).map((at, i) => at - (times[i] as number))
  const usual = median(apart)
  // One that was missed leaves twice the distance.
  const folded = apart.map((each) => each / Math.max(1, Math.round(each / usual)))
  return standardDeviation(folded) < EVEN * mean(folded) ? mean(folded) : null
}
