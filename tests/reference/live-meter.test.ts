import { describe, expect, it } from 'vitest'
import { LiveMeter } from '#core/measure/live/live-meter'
import { AWeightedMeter } from '#core/measure/levels/a-weighted'
import { TruePeakMeter } from '#core/measure/levels/true-peak'
import { meanSquareToDbfs } from '#core/measure/block-levels'
import { seeded } from '#core/numeric/random'
import { SimulatedPerformer } from '#core/render/performer'

const RATE = 48_000
const tone = (dbfs: number, seconds: number, frequency = 1000, rate = RATE) =>
  Float64Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => 10 ** (dbfs / 20) * Math.sin((2 * Math.PI * frequency * i) / rate),
  )

/** As the worklet ships it. */
const BLOCK = 2048
function feed(meter: LiveMeter, ...channels: Float64Array[]) {
  const [first = new Float64Array()] = channels
  for (let from = 0; from < first.length; from += BLOCK)
    meter.frames(channels.map((each) => each.subarray(from, from + BLOCK)))
  return meter.snapshot()
}

describe('the live meter', () => {
  it.each([-1, -6, -20, -40, -60])('a sine of 997 Hz at %f dBFS: peak within 0.1 dB, average by AES17', (level) => {
    const found = feed(new LiveMeter(RATE, 1), tone(level, 4, 997))
    expect(Math.abs((found.passage.peak ?? 0) - level)).toBeLessThan(0.02)
    expect(found.passage.average).toBeCloseTo(level, 1)
    expect(found.passage.loudest).toBeCloseTo(level, 1)
    expect(found.passage.crest).toBeCloseTo(3.01, 1)
  })
  it('EBU Tech 3341, case 1: stereo sine at −23 dBFS for 20 s reads −23.0 LUFS three times', () => {
    const found = feed(new LiveMeter(RATE, 2), tone(-23, 20), tone(-23, 20))
    for (const loudness of [found.momentary, found.shortTerm, found.passage.integrated])
      expect(Math.abs((loudness ?? 0) + 23)).toBeLessThan(0.1)
  })
  it('case 3: −36 for 10 s, −23 for 60 s, −36 for 10 s: the gate leaves −23.0', () => {
    const meter = new LiveMeter(RATE, 2)
    for (const [level, seconds] of [
      [-36, 10],
      [-23, 60],
      [-36, 10],
    ] as const)
      feed(meter, tone(level, seconds), tone(level, seconds))
    expect(Math.abs((meter.snapshot().passage.integrated ?? 0) + 23)).toBeLessThan(0.1)
  })
  it('true peak of a quarter-rate sine at 45° (BS.1770-4, annex 2): 3 dB over its samples', () => {
    const samples = Float64Array.from({ length: RATE }, (_, i) => 0.5 * Math.sin((Math.PI / 2) * i + Math.PI / 4))
    const found = feed(new LiveMeter(RATE, 1), samples)
    const whole = new TruePeakMeter()
    whole.frames(samples, samples.length)
    expect(found.passage.truePeak).toBeCloseTo(20 * Math.log10(whole.end()), 2)
    expect((found.passage.truePeak ?? 0) - (found.passage.peak ?? 0)).toBeGreaterThan(2.5)
  })
  it('the floor is the A-weighted level of its quietest second', () => {
    const random = seeded(3)
    const noise = Float64Array.from({ length: 6 * RATE }, () => 0.001 * (2 * random() - 1))
    const whole = new AWeightedMeter(RATE)
    whole.frames(noise, noise.length)
    const loud = tone(-10, 3)
    const found = feed(new LiveMeter(RATE, 1), Float64Array.from([...loud, ...noise, ...loud]))
    expect(Math.abs((found.floor ?? 0) - (meanSquareToDbfs(whole.end()) ?? 0))).toBeLessThan(0.5)
  })
  it('clipped runs are counted, those of a clean sine at full scale are not', () => {
    const clean = tone(0, 2, 441)
    expect(feed(new LiveMeter(RATE, 1), clean).passage.clippedRuns).toBe(0)
    const cut = clean.map((x) => Math.max(-0.8, Math.min(0.8, x)))
    expect(feed(new LiveMeter(RATE, 1), cut).passage.clippedRuns).toBeGreaterThan(1000)
  })
  it('a new passage lets go of what was held, and only of that', () => {
    const meter = new LiveMeter(RATE, 1)
    feed(meter, tone(-3, 5))
    meter.startPassage()
    const found = feed(meter, tone(-30, 5))
    expect(found.passage.peak).toBeCloseTo(-30, 1)
    expect(found.passage.truePeak).toBeCloseTo(-30, 1)
    expect(found.passage.integrated).toBeCloseTo(-33, 0)
    expect(found.seconds).toBeCloseTo(10, 3)
    expect(found.passage.seconds).toBeCloseTo(5, 3)
  })
  it('silence is no level, and nothing is not a number', () => {
    const found = feed(new LiveMeter(RATE, 2), new Float64Array(RATE * 4), new Float64Array(RATE * 4))
    expect(found.passage).toMatchObject({ peak: null, truePeak: null, crest: null, integrated: null })
    expect(JSON.stringify(new LiveMeter(RATE, 1).snapshot())).not.toMatch(/NaN|Infinity/)
  })
  it('after 30 minutes it holds as much as after one', () => {
    const meter = new LiveMeter(8000, 1)
    const minute = tone(-20, 60, 440, 8000)
    feed(meter, minute)
    const after = heldBy(meter)
    for (let i = 1; i < 30; i++) feed(meter, minute)
    expect(heldBy(meter)).toBeLessThanOrEqual(after)
    expect(meter.snapshot().seconds).toBeCloseTo(1800, 0)
  })
})

/** Numbers, and places for them, that can be reached from an object. */
function heldBy(value: unknown, seen = new Set<unknown>()): number {
  if (typeof value !== 'object' || value === null || seen.has(value)) return 1
  seen.add(value)
  if (ArrayBuffer.isView(value)) return (value as Float64Array).length
  return Object.values(value).reduce<number>((sum, each) => sum + heldBy(each, seen), 0)
}

describe('a simulated performer, measured by the live meter', () => {
  const performance = { average: -28, peak: -14.5, surge: 5, noise: -75, clipsAt: 0 }
  const playing = (how: SimulatedPerformer['playing'], given = performance, seconds = 26) => {
    const performer = new SimulatedPerformer(RATE, given, 11)
    performer.playing = how
    const meter = new LiveMeter(RATE, 1)
    performer.block(RATE / 2)
    for (let i = 0; i < (seconds * RATE) / BLOCK; i++) meter.frames([performer.block(BLOCK)])
    return meter.snapshot()
  }
  it('its loudest passage has the level, the peak and so the crest that the chain gives it', () => {
    const { passage } = playing('loudest')
    expect(Math.abs((passage.peak ?? 0) + 14.5)).toBeLessThan(0.2)
    expect(Math.abs((passage.loudest ?? 0) + 28)).toBeLessThan(0.5)
    expect(passage.clippedRuns).toBe(0)
  })
  it('the take surges, and is cut where the chain clips', () => {
    expect(playing('surge').passage.peak).toBeCloseTo(-9.5, 0)
    const cut = playing('surge', { ...performance, clipsAt: -12 }).passage
    expect(cut.peak).toBeCloseTo(-12, 1)
    expect(cut.clippedRuns).toBeGreaterThan(3)
  })
  it('its noise stands at its A-weighted level', () => {
    expect(Math.abs((playing('silent', performance, 8).floor ?? 0) + 75)).toBeLessThan(0.5)
  })
  it('a gain that is turned is followed', () => {
    const performer = new SimulatedPerformer(RATE, performance, 11)
    performer.playing = 'loudest'
    performer.block(RATE)
    performer.setTo({ ...performance, average: -34, peak: -20.5, noise: -81 })
    performer.block(RATE)
    const meter = new LiveMeter(RATE, 1)
    for (let i = 0; i < (13 * RATE) / BLOCK; i++) meter.frames([performer.block(BLOCK)])
    expect(meter.snapshot().passage.peak).toBeCloseTo(-20.5, 0)
  })
})
