import { faded, sine } from '../signals/generate'
import type { FoundCable } from './findings'
import type { LockedTone } from './lock-in'
import { lockedTone } from './lock-in'
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
}

/** Finds every cable at once: quiet tones, a different one from each output, 6 dB louder each time until one comes back. */
export async function findCables(conductor: Pick<Conductor, 'rig' | 'take'>): Promise<CableSearch> {
  const { rig } = conductor
  const tones = TONES.slice(0, rig.outputs)
  let heard: FoundCable[] = []
  let played = QUIETEST
  for (; played <= LOUDEST; played += STEP) {
    const signals = tones.map((tone) => faded(sine(rig.sampleRate, SECONDS, tone, played), rig.sampleRate, 0.02))
    const recorded = await conductor.take(signals, signals[0]?.length ?? 0)
    heard = recorded.flatMap((samples, input) =>
      tones.flatMap((tone, output) => cableOf(samples, rig.sampleRate, tone, output, input, played) ?? []),
    )
    if (heard.some(({ loopGain }) => loopGain + played >= ENOUGH)) break
  }
  const strongest = Math.max(...heard.map(({ loopGain }) => loopGain))
  return {
    cables: heard.filter(({ loopGain }) => loopGain > strongest - CROSSTALK).sort((a, b) => a.output - b.output),
    played: Math.min(played, LOUDEST),
  }
}

function cableOf(
  recorded: Float64Array,
  sampleRate: number,
  tone: number,
  output: number,
  input: number,
  played: number,
): FoundCable | null {
  // Wherever the tone lies in the recording, this part is in the middle of it.
  const middle = recorded.subarray(Math.round(TAIL * sampleRate), Math.round((SECONDS - 0.05) * sampleRate))
  const found = lockedTone(middle, sampleRate, tone)
  if (!found || found.level < FAINTEST) return null
  const blocks = (middle.length / sampleRate) * BLOCKS_A_SECOND
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
