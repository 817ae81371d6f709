/** So near to the peak a sample stands on the top, as a part of it. */
const TOP = 0.985
/** Fewer samples make no plateau. */
const LEAST_WIDTH = 4
/** The top of a wave is round: it falls by the whole of what is left of the top. A plateau is flat within that part of the peak. */
const FLAT = 0.006
/** As far beside its edge as a top is half wide a round one has fallen by 6 %; where it was cut, a wave has fallen by far more. */
const FALLS = 0.18

/**
 * Plateaus at the peak that a wave was cut to, also where a noise was added behind so that no two samples are alike.
 * Example: a sine cut by 1 dB falls by 34 % as far beside its plateau as that is half wide, an uncut one by 6 %.
 */
export function flatTops(samples: Float64Array, peak: number): number {
  let count = 0
  for (let from = 0; from < samples.length; from++) {
    const side = Math.sign(samples[from] as number)
    if (side * (samples[from] as number) < TOP * peak) continue
    let to = from + 1
    while (to < samples.length && side * (samples[to] as number) >= TOP * peak) to++
    if (to - from >= LEAST_WIDTH && isCut(samples, from, to, side, peak)) count++
    from = to
  }
  return count
}

function isCut(samples: Float64Array, from: number, to: number, side: number, peak: number): boolean {
  let [least, most] = [Infinity, 0]
  // The first and the last sample stand on the edges.
  for (let i = from + 1; i < to - 1; i++) {
    const size = side * (samples[i] as number)
    if (size < least) least = size
    if (size > most) most = size
  }
  if (most - least > FLAT * peak) return false
  const half = Math.ceil((to - from) / 2)
  const beside = ((samples[from - half] ?? 0) + (samples[to - 1 + half] ?? 0)) / 2
  return side * beside < (1 - FALLS) * most
}
