import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { findComb } from '#core/measure/heard/comb'
import { findDropouts } from '#core/measure/heard/dropouts'
import { listenTo } from '#core/measure/heard/listen'
import type { Heard } from '#core/measure/heard/listen'
import { between } from '#core/measure/loopback-meter'
import { measureNoise } from '#core/measure/noise'
import { measureTone } from '#core/measure/tone'
import { renderStrip } from '#core/render/chain'
import { withEffects } from '#core/render/effects'
import { audible, recorded } from '#core/render/hearing'
import { pinkNoise, sine, whiteNoise } from '#core/signals/generate'
import { templateIds, templateOf } from '#core/trainer/planted/templates'
import { seeded } from '#core/numeric/random'
import { demoSession } from '#demo/index'
import { templates, templateSession } from '#demo/templates'

const RATE = 48_000
const rms = (samples: Float64Array) =>
  10 * Math.log10((2 * samples.reduce((sum, x) => sum + x * x, 0)) / samples.length)
const peakOf = (samples: Float64Array) => 20 * Math.log10(samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0))

describe('a chain as sound, measured by the product’s own meters, has the chain’s figures', () => {
  const sessions = [
    { name: 'the demo', session: demoSession() },
    ...templates.map((template) => ({ name: template.title, session: templateSession(template) })),
    ...templateIds.map((id) => ({ name: `planted: ${id}`, session: templateOf(id).make(seeded(4)) })),
  ]
  for (const { name, session } of sessions)
    it(`${name}: level within 0.2 dB, floor within 0.5 dB`, () => {
      const { strips } = evaluateSession(session)
      for (const [i, strip] of session.strips.entries()) {
        const points = strips[i]?.points ?? []
        const end = points.at(-1)
        // Clipped ones are other sounds, curves move, and sums of unrelated sounds scatter: each has its own test.
        if (!end || strip.kind === 'bus' || points.some(({ clipped, reduction }) => clipped || reduction)) continue
        const playing = { sampleRate: RATE, programmeSeconds: 4, pauseSeconds: 3, seed: 9 + i }
        const sound = renderStrip(session, strip.id, playing)
        const programme = sound.subarray(0, 4 * RATE)
        expect(Math.abs(rms(programme) - end.average), `${strip.id} average`).toBeLessThan(0.2)
        expect(Math.abs(peakOf(programme) - end.peak), `${strip.id} peak`).toBeLessThan(0.2)
        if (end.noise === null) continue
        const noise = measureNoise(sound.subarray(4 * RATE), RATE)
        if ('code' in noise) throw new Error(noise.message)
        expect(Math.abs(noise.weighted - end.noise), `${strip.id} noise`).toBeLessThan(0.5)
      }
    })

  it('a bus is the sum: its average within 0.5 dB of unrelated sounds added in power, its floor within 0.5 dB', () => {
    const session = demoSession()
    const { strips } = evaluateSession(session)
    const at = session.strips.findIndex(({ id }) => id === 'music')
    const sound = renderStrip(session, 'music', { sampleRate: RATE, programmeSeconds: 5, pauseSeconds: 3, seed: 3 })
    const end = strips[at]?.points.at(-1)
    expect(Math.abs(rms(sound.subarray(0, 5 * RATE)) - (end?.average ?? 0))).toBeLessThan(0.5)
    const noise = measureNoise(sound.subarray(5 * RATE), RATE)
    expect('code' in noise ? 99 : Math.abs(noise.weighted - (end?.noise ?? 0))).toBeLessThan(0.5)
  })

  it('what clips is cut at the ceiling of the stage that clips, where that lies at the end', () => {
    const session = demoSession()
    const stage = session.strips[0]?.stages[2]
    if (stage) stage.settings = { ...stage.settings, gain: 58 as never }
    const sound = renderStrip(session, 'narrator', { sampleRate: RATE, programmeSeconds: 3, pauseSeconds: 2, seed: 2 })
    expect(peakOf(sound)).toBeCloseTo(0, 6)
    const heard = listenTo([sound], RATE) as Heard
    expect(heard.channels[0]?.clipped?.level).toBeCloseTo(0, 3)
  })

  it('the same seed gives the same samples; ten seconds are made and nothing is NaN', () => {
    const session = demoSession()
    const playing = { sampleRate: RATE, programmeSeconds: 10, pauseSeconds: 0, seed: 8 }
    const [a, b] = [renderStrip(session, 'cello', playing), renderStrip(session, 'cello', playing)]
    expect(a).toEqual(b)
    expect(renderStrip(session, 'cello', { ...playing, seed: 9 })).not.toEqual(a)
    expect(a.every(Number.isFinite)).toBe(true)
  })
})

describe('what a fault does to a sound is what the meters find', () => {
  const voice = renderStrip(demoSession(), 'narrator', {
    sampleRate: RATE,
    programmeSeconds: 6,
    pauseSeconds: 3,
    seed: 4,
  })

  it('heard twice: the delay within 1 frame by the loopback’s correlation, the notch within 1 % by the cepstrum', () => {
    const sound = pinkNoise(RATE, 6, -20, 5)
    for (const delayMs of [0.8, 2.37, 7.3, 11.113, 40, 180]) {
      const [twice] = withEffects(sound, RATE, { twice: { delayMs, difference: -3 } }, 1)
      const second = twice.map((x, i) => x - (sound[i] as number))
      const lag = between(sound.subarray(0, 2 * RATE), second.subarray(0, 2 * RATE), RATE)
      expect('code' in lag ? NaN : Math.abs(lag.lagFrames - (delayMs * RATE) / 1000), `${delayMs} ms`).toBeLessThan(1)
      const comb = findComb(twice, RATE)
      expect(Math.abs((comb?.notch ?? 0) / (500 / delayMs) - 1), `${delayMs} ms`).toBeLessThan(0.01)
      expect(Math.abs((comb?.difference ?? -99) + 3), `${delayMs} ms`).toBeLessThan(1.5)
    }
  })
  it('the voice through the chain, heard twice, is found too; once it is not', () => {
    expect(findComb(voice.subarray(0, 6 * RATE), RATE)).toBeNull()
    for (const delayMs of [1.7, 6.95, 23]) {
      const [twice] = withEffects(voice, RATE, { twice: { delayMs, difference: -4 } }, 1)
      expect(Math.abs((findComb(twice.subarray(0, 6 * RATE), RATE)?.delayMs ?? 0) / delayMs - 1)).toBeLessThan(0.01)
    }
  })
  it('another rate: the pitch within 1 cent of 12·lb of the ratio', () => {
    const tone = (rate: number) => sine(rate, 3, 1000, -20)
    for (const [material, clock] of [
      [44_100, 48_000],
      [48_000, 44_100],
      [96_000, 48_000],
    ] as const) {
      const ratio = clock / material
      const made = RATE / ratio
      const [played] = recorded({ from: { recording: tone(made) }, seconds: 3, effects: { ratio } }, RATE)
      const found = measureTone(played, RATE)
      const cents = 'code' in found ? 999 : 1200 * Math.log2(found.frequency / 1000)
      expect(Math.abs(cents - 1200 * Math.log2(ratio))).toBeLessThan(1)
    }
  })
  it('hum: its frequency, its level within 0.5 dB, its pattern', () => {
    for (const [mains, lines] of [
      [50, 'odd'],
      [60, 'even'],
      [50, 'alone'],
    ] as const) {
      const [humming] = withEffects(voice, RATE, { hum: { mains, level: -52, lines } }, 1)
      const hum = (listenTo([humming], RATE) as Heard).channels[0]?.hum
      expect(hum?.mains).toBe(mains)
      expect(Math.abs((hum?.level ?? 0) + 52)).toBeLessThan(0.5)
    }
    expect((listenTo([voice], RATE) as Heard).channels[0]?.hum).toBeNull()
  })
  it('gaps, repeated buffers and jumps: counted, and told whether they come evenly', () => {
    const clean = findDropouts(voice, RATE)
    expect(clean.count).toBe(0)
    for (const kind of ['gap', 'repeat'] as const) {
      const music = pinkNoise(RATE, 6, -20, 6)
      const [torn] = withEffects(music, RATE, { dropouts: { kind, perSecond: 2, regular: false, frames: 256 } }, 3)
      const found = findDropouts(torn, RATE)
      expect(found.kinds[kind], kind).toBe(12)
      expect(found.every).toBeNull()
    }
    const sound = sine(RATE, 6, 440, -12)
    const [ticking] = withEffects(
      sound,
      RATE,
      { dropouts: { kind: 'jump', perSecond: 2, regular: true, frames: 40 } },
      3,
    )
    const ticks = findDropouts(ticking, RATE)
    // Where the tone goes on by chance as it would have, there is nothing to hear.
    expect(ticks.kinds.jump).toBeGreaterThanOrEqual(10)
    expect(ticks.every).toBeCloseTo(0.5, 2)
  })
  it('no dropouts and no comb are found in noise, tones, hum and clipped sounds', () => {
    const sounds = [
      whiteNoise(RATE, 4, -20, 3),
      pinkNoise(RATE, 4, -20, 4),
      sine(RATE, 4, 997, -1),
      voice.map((x) => Math.max(-0.05, Math.min(0.05, 4 * x))),
    ]
    for (const sound of sounds) {
      expect(findDropouts(sound, RATE).count).toBe(0)
      expect((listenTo([sound], RATE) as Heard).channels[0]?.comb ?? null).toBeNull()
    }
  })
  it('one side, an offset, opposite polarity', () => {
    const [left, right] = withEffects(voice, RATE, { side: 'left', offset: -40 }, 1)
    const heard = listenTo([left, right], RATE) as Heard
    expect(heard.silent).toEqual([2])
    expect(heard.channels[0]?.dc).toBeCloseTo(-40, 0)
    expect((listenTo([voice, voice.map((x) => -x)], RATE) as Heard).polarity).toBe('opposite')
    expect((listenTo([voice, voice], RATE) as Heard).polarity).toBe('same')
  })
  it('a moving level and lost treble are as they were asked for', () => {
    const tone = sine(RATE, 4, 1000, -20)
    const [moving] = withEffects(tone, RATE, { drift: { depth: 12, perSecond: 0.5, steps: true } }, 1)
    expect(rms(moving.subarray(0.2 * RATE, 0.8 * RATE)) - rms(moving.subarray(1.2 * RATE, 1.8 * RATE))).toBeCloseTo(
      12,
      1,
    )
    const [dull] = withEffects(tone, RATE, { dull: 1000 }, 1)
    expect(rms(dull.subarray(RATE)) - rms(tone)).toBeCloseTo(-3.01, 0)
  })
})

describe('for somebody’s ears', () => {
  const from = { session: demoSession(), strip: 'narrator' }
  it('a pause is brought up as asked, never over the programme; two states keep their difference', () => {
    const quieter = structuredClone(from.session)
    const stage = quieter.strips[0]?.stages[2]
    if (stage) stage.settings = { ...stage.settings, gain: 29 as never }
    const sounds = audible(
      [
        { from, seconds: 3, pauseSeconds: 3 },
        { from: { session: quieter, strip: 'narrator' }, seconds: 3, pauseSeconds: 3 },
        { from, seconds: 3, pauseSeconds: 3, pauseRaised: 20 },
        { from, seconds: 3, pauseSeconds: 3, pauseRaised: 90 },
      ],
      RATE,
    )
    const part = (i: number, fromSeconds: number, to: number) =>
      rms((sounds[i]?.[0] as Float64Array).subarray(fromSeconds * RATE, to * RATE))
    expect(part(0, 1, 2.5) - part(1, 1, 2.5)).toBeCloseTo(6, 1)
    expect(part(2, 3.5, 5) - part(0, 3.5, 5)).toBeCloseTo(20, 1)
    expect(part(3, 3.5, 5)).toBeLessThan(part(3, 0.6, 3) + 1)
    for (const channels of sounds)
      for (const channel of channels) {
        expect(peakOf(channel)).toBeLessThanOrEqual(-6 + 1e-9)
        expect(rms(channel)).toBeLessThanOrEqual(-20)
      }
  })
})
