import type { FoundMark, IdleNoise, Value } from './findings'
import type { GainHint, GainMark } from './hand'
import type { CableLoop } from './loop'
import { LEAST_U } from './loop-figures'
import type { Subject } from './subject'

/** A gain that changes by less was not turned, dB. */
const TURNED = 0.5
/** A gain that moves by less from one look to the next stands still, dB. */
const STILL = 0.05
/** After so many looks at a gain that was turned and never stands still it is taken as it is, and marked. */
const MOST_UNSTEADY = 20
/** The tone is to read this at the highest gain, dBFS; and nothing less at the lowest. */
const [TOP, FAINTEST] = [-12, -90]

/** Marks from the lowest to the highest: evenly over the turn of a knob, or over the scale of a gain that has steps. */
export function marksOf({ gainMin, gainMax, gainStep }: Subject, count: number): GainMark[] {
  if (gainMax <= gainMin) return [{ position: 7 }]
  return Array.from({ length: count }, (_, i) => {
    const part = count === 1 ? 0 : i / (count - 1)
    return gainStep > 0
      ? { said: gainMin + gainStep * Math.round((part * (gainMax - gainMin)) / gainStep) }
      : { position: Math.round(4 * (7 + 10 * part)) / 4 }
  })
}

/** Gains in turn, from the second lowest to the highest: each is waited for, heard, and measured with its noise. */
export async function gainMarks(loop: CableLoop, subject: Subject, count: number): Promise<FoundMark[]> {
  const lowest = loop.gain
  const found: FoundMark[] = []
  for (const mark of marksOf(subject, count).slice(1)) {
    const left = subject.gainMax - subject.gainMin - (loop.gain - lowest)
    const heard = await gainAndNoise(loop, mark, Math.max(FAINTEST, Math.min(TOP, TOP - left)))
    if (!heard) continue
    const { gain, noise } = heard
    loop.gain = gain.value
    if (noise) found.push({ mark, gain: { value: gain.value - lowest, u: Math.hypot(gain.u, LEAST_U) }, noise })
  }
  return found
}

/** A hand that paused on its way and turned on while the noise was measured is waited for again. */
async function gainAndNoise(
  loop: CableLoop,
  mark: GainMark,
  read: number,
): Promise<{ gain: Value; noise: IdleNoise | null } | null> {
  const { conductor } = loop
  for (;;) {
    conductor.says('Waiting for the gain')
    const gain = await turned(loop, mark, read)
    conductor.settled()
    if (!gain) return null
    conductor.says('Noise at this gain')
    const noise = await loop.idle(3)
    const played = Math.min(-1, read - gain.value)
    const { tone } = await loop.look(played)
    const stayed = !tone || Math.abs(tone.level - played - gain.value) < TURNED
    if (stayed || conductor.doubts.size > 0) return { gain, noise }
  }
}

/** Waits until the gain was turned up and stands still. @returns the loop gain there; `null` where it was left out */
async function turned(loop: CableLoop, mark: GainMark, read: number): Promise<Value | null> {
  const { conductor } = loop
  const before = loop.gain
  let played = loop.levelFor(read)
  let hint: GainHint | null = null
  let answered = conductor.ask({ do: 'gain', to: mark, hint })
  let last: number | null = null
  for (let unsteady = 0; ;) {
    if (answered()?.done === false) return null
    const { tone, isHot } = await loop.look(played)
    if (isHot) {
      played -= 20
      last = null
      continue
    }
    const gain = tone && tone.level - played
    const next = hintFor(gain, before)
    if (next !== hint) {
      if (answered()?.done === false) return null
      hint = next
      answered = conductor.ask({ do: 'gain', to: mark, hint })
    }
    if (!tone || gain === null || gain < before + TURNED) {
      last = null
      continue
    }
    const isStill = tone.scatter < STILL + 4 * tone.error * Math.sqrt(6)
    if (!isStill && ++unsteady > MOST_UNSTEADY) {
      conductor.doubts.add(tone.jumps ? 'samples-lost' : 'loose')
      return { value: gain, u: Math.max(STILL, tone.scatter) }
    }
    if (isStill && last !== null && Math.abs(gain - last) < STILL)
      return { value: (gain + last) / 2, u: Math.hypot(tone.error, Math.abs(gain - last) / 2) }
    last = isStill ? gain : null
  }
}

const hintFor = (gain: number | null, before: number): GainHint | null =>
  gain === null ? 'cable-out' : gain < before - TURNED ? 'turned-down' : null
