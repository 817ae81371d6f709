import { seeded } from '#core/numeric/random'
import { programmeOf } from '#core/render/programme'
import { whiteNoise } from '#core/signals/generate'

/** Programme that no listener was tuned on, by kind: so many seconds of it, with a converter's noise under it. */
export type ProgrammeKind = 'voice' | 'speech' | 'plucked' | 'organ' | 'drums' | 'bass'

const NOISE = -85

export function programme(kind: ProgrammeKind, sampleRate: number, seconds: number, seed: number): Float64Array {
  const noise = whiteNoise(sampleRate, seconds, NOISE, seed)
  return made[kind](sampleRate, seconds, seed).map((x, i) => x + (noise[i] ?? 0))
}

type Maker = (rate: number, seconds: number, seed: number) => Float64Array
const made: Record<ProgrammeKind, Maker> = {
  voice: (rate, seconds, seed) => programmeOf('voice', rate, seconds, { average: -26, peak: -14 }, seed),
  plucked: (rate, seconds, seed) => programmeOf('instrument', rate, seconds, { average: -26, peak: -12 }, seed),
  speech,
  organ,
  drums,
  bass,
}

/** A voice with rests of half a second to one. */
function speech(rate: number, seconds: number, seed: number): Float64Array {
  const out = made.voice(rate, seconds, seed)
  const random = seeded(seed + 99)
  const fade = Math.round(0.04 * rate)
  for (let at = 0; at < out.length;) {
    const from = at + Math.round((1 + 2 * random()) * rate)
    const to = from + Math.round((0.5 + 0.5 * random()) * rate)
    for (let i = from - fade; i < Math.min(out.length, to + fade); i++) {
      const size = i < from ? (from - i) / fade : i >= to ? (i - to) / fade : 0
      out[i] = (out[i] as number) * size
    }
    at = to
  }
  return out
}

/** Steady chords of five notes with six partials each, tuned by the seed. */
function organ(rate: number, seconds: number, seed: number): Float64Array {
  const random = seeded(seed)
  const out = new Float64Array(Math.round(rate * seconds))
  const tuned = 430 + 20 * random()
  for (let at = 0; at < out.length;) {
    const length = Math.round((1.5 + 2 * random()) * rate)
    const root = Math.floor(12 * random()) - 33
    for (const above of [0, 7, 12, 16, 19])
      for (let partial = 1; partial <= 6; partial++) {
        const frequency = partial * tuned * 2 ** ((root + above) / 12)
        const phase = 2 * Math.PI * random()
        for (let i = 0; i < length && at + i < out.length; i++)
          out[at + i] =
            (out[at + i] as number) +
            (0.04 / partial) *
              Math.min(1, i / 2400, (length - i) / 4800) *
              Math.sin((2 * Math.PI * frequency * i) / rate + phase)
      }
    at += length
  }
  return out
}

/** A low drum and a bright one in turn, four a second. */
function drums(rate: number, seconds: number, seed: number): Float64Array {
  const random = seeded(seed)
  const out = new Float64Array(Math.round(rate * seconds))
  for (let beat = 0; 0.25 * beat < seconds; beat++) {
    const pitch = 50 + 30 * random()
    const at = Math.round(0.25 * beat * rate)
    for (let i = 0; i < 0.3 * rate && at + i < out.length; i++) {
      const t = i / rate
      const low = 0.3 * Math.exp(-14 * t) * Math.sin(2 * Math.PI * (pitch * t + 8 * (1 - Math.exp(-30 * t))))
      const bright = 0.15 * Math.exp(-25 * t) * (2 * random() - 1)
      out[at + i] = (out[at + i] as number) + (beat % 2 === 0 ? low : bright)
    }
  }
  return out
}

/** Single low notes with five partials, which may fall on the mains' own. */
function bass(rate: number, seconds: number, seed: number): Float64Array {
  const random = seeded(seed)
  const out = new Float64Array(Math.round(rate * seconds))
  for (let at = 0; at < out.length;) {
    const frequency = 41.2 * 2 ** (Math.floor(25 * random()) / 12) * (1 + 0.004 * (random() - 0.5))
    const length = Math.round((0.4 + 0.8 * random()) * rate)
    for (let i = 0; i < length && at + i < out.length; i++) {
      const t = i / rate
      let sum = 0
      for (let partial = 1; partial <= 5; partial++)
        sum += (Math.sin(2 * Math.PI * frequency * partial * t) * Math.exp(-t * partial)) / partial
      out[at + i] = (out[at + i] as number) + 0.2 * sum * Math.min(1, i / 200, (length - i) / 2000)
    }
    at += length
  }
  return out
}
