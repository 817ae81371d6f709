import { seeded } from '../numeric/random'
import { heardTwice } from './heard-twice'

/**
 * What happens to a sound besides its levels: how a fault sounds. Levels in dBFS (AES17), dB against the sound itself where nothing
 * else is said.
 */
export interface Effects {
  /** Mains hum of a level in all, with its multiples. */
  hum?: { mains: 50 | 60; level: number; lines: 'alone' | 'odd' | 'even' }
  /** Buffers that are lost, played twice, or torn. */
  dropouts?: { kind: 'gap' | 'repeat' | 'jump'; perSecond: number; regular: boolean; frames: number }
  /** The sound once more. */
  twice?: { delayMs: number; difference: number; inverted?: boolean }
  /** Plays faster or slower by the ratio of two rates. */
  ratio?: number
  side?: 'left' | 'right'
  /** The level moves by so many dB, with so many turns a second; in steps or gently. */
  drift?: { depth: number; perSecond: number; steps: boolean }
  /** Treble goes from that frequency on, Hz. */
  dull?: number
  /** A howl that comes up at a frequency, with so many dB a second. */
  howl?: { frequency: number; rise: number }
  offset?: number
}

/** The sound with them, on two channels. Rates do not change here: `ratio` is a matter of how fast the frames are played. */
export function withEffects(
  sound: Float64Array,
  sampleRate: number,
  effects: Effects,
  seed: number,
): [Float64Array, Float64Array] {
  let out = sound
  if (effects.dull !== undefined) out = lowPassed(out, sampleRate, effects.dull)
  if (effects.twice) {
    const { delayMs, difference, inverted } = effects.twice
    out = heardTwice(out, sampleRate, delayMs, difference, inverted ? -1 : 1).subarray(0, sound.length)
  }
  out = out === sound ? sound.slice() : out
  if (effects.drift) drift(out, sampleRate, effects.drift)
  if (effects.hum) addHum(out, sampleRate, effects.hum)
  if (effects.howl) addHowl(out, sampleRate, effects.howl)
  if (effects.offset !== undefined) {
    const size = 10 ** (effects.offset / 20)
    for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + size
  }
  if (effects.dropouts) tear(out, sampleRate, effects.dropouts, seed)
  const none = new Float64Array(out.length)
  return [effects.side === 'right' ? none : out, effects.side === 'left' ? none : effects.side ? out : out.slice()]
}

/** One pole, 6 dB an octave: a lead’s capacitance behind an impedance. */
function lowPassed(sound: Float64Array, sampleRate: number, corner: number): Float64Array {
  const kept = Math.exp((-2 * Math.PI * corner) / sampleRate)
  let last = 0
  return sound.map((x) => (last = (1 - kept) * x + kept * last))
}

const LINES = {
  alone: [[1, 1]],
  odd: [
    [1, 1],
    [3, 0.5],
    [5, 0.25],
    [7, 0.12],
  ],
  even: [
    [1, 0.1],
    [2, 1],
    [4, 0.5],
    [6, 0.25],
  ],
} as const

function addHum(out: Float64Array, sampleRate: number, { mains, level, lines }: NonNullable<Effects['hum']>): void {
  const parts = LINES[lines]
  const power = parts.reduce((sum, [, size]) => sum + size * size, 0)
  const all = 10 ** (level / 20) / Math.sqrt(power)
  for (const [order, size] of parts) {
    const step = (2 * Math.PI * order * mains) / sampleRate
    for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + all * size * Math.sin(step * i + order)
  }
}

function drift(
  out: Float64Array,
  sampleRate: number,
  { depth, perSecond, steps }: NonNullable<Effects['drift']>,
): void {
  for (let i = 0; i < out.length; i++) {
    const wave = Math.sin((2 * Math.PI * perSecond * i) / sampleRate)
    const off = steps ? (wave < 0 ? -depth : 0) : (depth / 2) * (wave - 1)
    out[i] = (out[i] as number) * 10 ** (off / 20)
  }
}

/** No howl gets louder than that here, dBFS. */
const LOUDEST_HOWL = -12

function addHowl(out: Float64Array, sampleRate: number, { frequency, rise }: NonNullable<Effects['howl']>): void {
  for (let i = 0; i < out.length; i++) {
    const level = Math.min(LOUDEST_HOWL, -60 + (rise * i) / sampleRate)
    out[i] = (out[i] as number) + 10 ** (level / 20) * Math.sin((2 * Math.PI * frequency * i) / sampleRate)
  }
}

function tear(
  out: Float64Array,
  sampleRate: number,
  { kind, perSecond, regular, frames }: NonNullable<Effects['dropouts']>,
  seed: number,
): void {
  const random = seeded(seed + 17)
  const apart = sampleRate / perSecond
  const count = Math.floor(out.length / apart)
  for (let k = 0; k < count; k++) {
    const at = Math.round((k + 0.5 + (regular ? 0 : 0.9 * (random() - 0.5))) * apart)
    if (at + 2 * frames >= out.length || at < frames) continue
    if (kind === 'gap') out.fill(0, at, at + frames)
    else if (kind === 'repeat') out.copyWithin(at, at - frames, at)
    // One clock is ahead: so many frames are lost at once.
    else out.copyWithin(at, at + frames)
  }
}
