import type { Performance } from './performer'
import { SimulatedPerformer } from './performer'

/** Level at which programme is played to somebody’s ears, dBFS (AES17): where it starts, and the most that can be chosen. */
export const BY_EAR = { starts: -30, most: -20 } as const

/** No sample is over that, dBFS, whatever the crest factor. */
const LIMIT = -6

/** Seconds of programme, then of its pause. */
const [PROGRAMME, PAUSE] = [3, 3]
/** Fades at both ends, s. */
const FADE = 0.5

/**
 * A strip’s programme, then the pause with nothing but its noise, as they stand against each other.
 * @param level of the programme’s average, dBFS, held at the most that is safe
 * @param raised how much louder the noise is played than it is, dB: most floors are far too low to be heard beside a safe programme;
 *   it never comes over the programme
 */
export function floorByEar(
  { average, peak, noise }: Pick<Performance, 'average' | 'peak' | 'noise'>,
  sampleRate: number,
  level: number = BY_EAR.starts,
  raised = 0,
): Float64Array {
  const up = Math.min(level, BY_EAR.most) - average
  const performer = new SimulatedPerformer(
    sampleRate,
    {
      average: average + up,
      peak: peak + up,
      surge: 0,
      noise: noise === null ? null : Math.min(noise + up + raised, Math.min(level, BY_EAR.most)),
      clipsAt: LIMIT,
    },
    5,
  )
  performer.playing = 'loudest'
  const first = performer.block(PROGRAMME * sampleRate)
  performer.playing = 'silent'
  const second = performer.block(PAUSE * sampleRate)
  const edge = FADE * sampleRate
  const length = first.length + second.length
  return Float64Array.from(
    { length },
    (_, i) =>
      ((i < first.length ? first[i] : second[i - first.length]) as number) *
      Math.min(1, i / edge, (length - 1 - i) / edge),
  )
}
