import { faded, sine } from '../signals/generate'
import type { FoundCable } from './findings'
import type { LockedTone } from './lock-in'
import { lockedTone, powerAt } from './lock-in'
import { TAIL } from '../signals/rig'
import type { Conductor } from './conductor'

/** Every output plays a tone of its own: multiples of 10 Hz that are no multiples of the mains and no harmonics of each other. */
const TONES = [970, 1130, 1270, 1390, 1510, 1630, 1790, 1910] as const
/** The tones begin here and grow in steps until one comes back well, dBFS. */
const QUIETEST = -60
const LOUDEST = -12
const STEP = 6
/** Comes back well from here on, dBFS: far over the noise, and far under full scale. */
const ENOUGH = -30
/** What is fainter is noise, dBFS. */
const FAINTEST = -100
/** What comes back so far under the strongest is crosstalk, dB. */
const CROSSTALK = 30
/** A tone that jumps by more is carried by a loose contact (common practice, no source), dB. */
const LOOSE = 0.15
const SECONDS = 1.2

/** Where the tones of all outputs come back; the level at which that was seen, dBFS. */
export interface CableSearch {
  cables: FoundCable[]
  played: number
  /** An input hears something that was not played, and no cable. */
  otherSoundAt: number | null
}

/** A tone is ours where it goes when it is not played, and follows it within this when it is played more quietly, dB. */
const FOLLOWS = { within: 1, withinLoose: 8 }

/** Finds every cable at once: quiet tones, a different one from each output, 6 dB louder each time until one comes back. */
export async function findCables(conductor: Pick<Conductor, 'rig' | 'take'>): Promise<CableSearch> {
  let heard: FoundCable[] = []
  let played = QUIETEST
  for (; played <= LOUDEST; played += STEP) {
    heard = await heardAt(conductor, played)
    if (heard.some(({ loopGain }) => loopGain + played >= ENOUGH)) break
  }
  played = Math.min(played, LOUDEST)
  const strongest = Math.max(...heard.map(({ loopGain }) => loopGain))
  const likely = heard.filter(({ loopGain }) => loopGain > strongest - CROSSTALK).sort((a, b) => a.output - b.output)
  const cables = await following(conductor, likely, played)
  return { cables, played, otherSoundAt: cables.length > 0 ? null : (likely[0]?.input ?? null) }
}

/** Those of the cables whose tone goes when nothing plays, and gets quieter when it is played more quietly. */
async function following(
  conductor: Pick<Conductor, 'rig' | 'take'>,
  likely: readonly FoundCable[],
  played: number,
): Promise<FoundCable[]> {
  if (likely.length === 0) return []
  const silent = await recordedAt(conductor, null)
  const quieter = await recordedAt(conductor, played - STEP)
  const { sampleRate } = conductor.rig
  return likely.filter(({ input, output, loopGain, isLoose, losesSamples }) => {
    const levelOf = (recorded: readonly Float64Array[]) =>
      powerAt(recorded[input] as Float64Array, sampleRate, TONES[output] as number)
    const level = loopGain + played
    const within = isLoose || losesSamples ? FOLLOWS.withinLoose : FOLLOWS.within
    return levelOf(silent) < level - CROSSTALK / 2 && Math.abs(levelOf(quieter) + STEP - level) < within
  })
}

/** What of the outputs’ tones is in each input. */
async function heardAt(conductor: Pick<Conductor, 'rig' | 'take'>, played: number): Promise<FoundCable[]> {
  const { sampleRate, outputs } = conductor.rig
  const recorded = await recordedAt(conductor, played)
  return recorded.flatMap((samples, input) =>
    TONES.slice(0, outputs).flatMap((tone, output) => cableOf(samples, sampleRate, tone, output, input, played) ?? []),
  )
}

/** Plays every output’s tone, or nothing. @returns of each input the part in which they are, wherever they lie in the recording */
async function recordedAt(
  { rig, take }: Pick<Conductor, 'rig' | 'take'>,
  played: number | null,
): Promise<Float64Array[]> {
  const { sampleRate, outputs } = rig
  const signals = TONES.slice(0, outputs).map((tone) =>
    played === null ? null : faded(sine(sampleRate, SECONDS, tone, played), sampleRate, 0.02),
  )
  const recorded = await take(signals, Math.round(SECONDS * sampleRate))
  return recorded.map((samples) =>
    samples.subarray(Math.round(TAIL * sampleRate), Math.round((SECONDS - 0.05) * sampleRate)),
  )
}

function cableOf(
  samples: Float64Array,
  sampleRate: number,
  tone: number,
  output: number,
  input: number,
  played: number,
): FoundCable | null {
  const found = lockedTone(samples, sampleRate, tone)
  if (!found || found.level < FAINTEST) return null
  const blocks = (samples.length / sampleRate) * BLOCKS_A_SECOND
  return {
    output,
    input,
    loopGain: found.level - played,
    isLoose: !found.jumps && isUnsteady(found, blocks),
    losesSamples: found.jumps,
  }
}

/** Blocks of a lock-in in a second. */
const BLOCKS_A_SECOND = 10

/** A level that scatters by more than its noise does. */
export const isUnsteady = ({ scatter, error }: LockedTone, blocks: number): boolean =>
  scatter > LOOSE + 4 * error * Math.sqrt(blocks)
