/** Level at which sounds are played to somebody’s ears, dBFS (AES17): where it starts, and the most that can be chosen. */
export const BY_EAR = { starts: -30, most: -20 } as const

/** No sample is over that, dBFS, whatever the crest factor. */
export const LIMIT = -6

/** Fades at both ends, s: nothing begins at once. */
const FADE = 0.5

/** A passage is as loud as its loudest stretch of that, s. */
const STRETCH = 0.4

/**
 * Brings sounds to a level that is safe for ears, all by the same gain, so that they stay as loud against each other as they are: the
 * loudest stretch of any at `level`, never over −20 dBFS, and no sample over −6 dBFS. The ends are faded.
 * @param raised channels as one sound each
 */
export function toEars(
  sounds: readonly (readonly Float64Array[])[],
  sampleRate: number,
  level: number = BY_EAR.starts,
): Float64Array[][] {
  const all = sounds.flat()
  const loudest = Math.max(0, ...all.map((each) => loudestStretch(each, Math.round(STRETCH * sampleRate))))
  const peak = all.reduce((most, each) => each.reduce((top, x) => Math.max(top, Math.abs(x)), most), 0)
  if (loudest === 0 || peak === 0) return sounds.map((channels) => channels.map((each) => each.slice()))
  const wanted = 10 ** (Math.min(level, BY_EAR.most) / 20) / Math.sqrt(2 * loudest)
  const gain = Math.min(wanted, 10 ** (LIMIT / 20) / peak)
  const edge = Math.round(FADE * sampleRate)
  return sounds.map((channels) =>
    channels.map((each) => each.map((x, i) => gain * x * Math.min(1, i / edge, (each.length - 1 - i) / edge))),
  )
}

/** Mean square of the loudest stretch. */
function loudestStretch(samples: Float64Array, length: number): number {
  let most = 0
  for (let from = 0; from < samples.length; from += length) {
    const part = samples.subarray(from, from + length)
    most = Math.max(most, part.reduce((sum, x) => sum + x * x, 0) / length)
  }
  return most
}
