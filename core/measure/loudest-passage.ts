import type { LevelsReport } from './levels/measure-levels'

/** The loudest stretch of a recording. */
export interface LoudestPassage {
  /** Where it begins, s. */
  at: number
  /** Its RMS on the loudest channel, dBFS (AES17). */
  level: number
  /** The highest peak of the whole recording over that, dB; a sine has 3.01. */
  crest: number
}

/** Length of a passage, s: a phrase (common practice, no source). */
export const PASSAGE = 3

/** AES17: a sine's mean square of ½ is 0 dBFS. */
const meanSquare = (value: number) => 10 * Math.log10(2 * value)
/** A sine's crest factor, dB. */
const SINE_CREST = 10 * Math.log10(2)

/**
 * The three seconds with the highest RMS of any channel; the whole of a shorter recording.
 * @returns `null` for digital silence
 */
export function loudestPassage({ channels }: Pick<LevelsReport, 'channels'>): LoudestPassage | null {
  const peak = Math.max(...channels.map((each) => each.peak ?? -Infinity))
  let loudest: { at: number; power: number } | null = null
  for (const { overview } of channels) {
    const { seconds, power } = overview
    const wide = Math.max(1, Math.min(power.length, Math.round(PASSAGE / seconds)))
    let sum = power.slice(0, wide).reduce((total, each) => total + each, 0)
    for (let i = 0; i + wide <= power.length; i++) {
      if (sum / wide > (loudest?.power ?? 0)) loudest = { at: i * seconds, power: sum / wide }
      sum += (power[i + wide] ?? 0) - (power[i] as number)
    }
  }
  if (!loudest || !Number.isFinite(peak)) return null
  const level = meanSquare(loudest.power)
  return { at: loudest.at, level, crest: peak - level + SINE_CREST }
}
