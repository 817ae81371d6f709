import { describe, expect, it } from 'vitest'
import { findDropouts } from '#core/measure/heard/dropouts'
import { flatTops } from '#core/measure/heard/flat-tops'
import { findHumUnder } from '#core/measure/heard/hum-under'
import { clippedIn } from '#core/measure/heard/clipped'
import { humIn } from '#core/measure/heard/hum-in'
import { pauseOf } from '#core/measure/heard/pause'
import { withEffects } from '#core/render/effects'
import { sine } from '#core/signals/generate'
import type { ProgrammeKind } from '../support/programmes'
import { programme } from '../support/programmes'
import { runs } from '../support/runs'

const RATE = 48_000
const SECONDS = 10
const KINDS: ProgrammeKind[] = ['voice', 'speech', 'plucked', 'organ', 'drums', 'bass']
const seeds = Array.from({ length: runs(6) }, (_, i) => i + 1)

/** How many of all kinds and seeds are found. */
const found = (isFound: (kind: ProgrammeKind, seed: number) => boolean) =>
  KINDS.flatMap((kind) => seeds.map((seed) => isFound(kind, seed))).filter(Boolean).length
const all = KINDS.length * seeds.length

describe('under programme that it was not tuned on', () => {
  it('hum is found, its mains and its level told: at −50 dBFS, under drums that never rest at −40; clean programme has none', () => {
    const humming = found((kind, seed) => {
      const mains = seed % 2 === 0 ? 50 : 60
      const level = kind === 'drums' ? -40 : -50
      const samples = programme(kind, RATE, SECONDS, seed)
      const [planted] = withEffects(samples, RATE, { hum: { mains, level, lines: 'odd' } }, seed)
      const hum = humIn(planted, RATE, pauseOf(planted, RATE))
      return hum?.mains === mains && Math.abs(hum.level - level) < 3
    })
    expect(humming).toBeGreaterThanOrEqual(0.9 * all)
    const clean = found((kind, seed) => {
      const samples = programme(kind, RATE, SECONDS, seed)
      return humIn(samples, RATE, pauseOf(samples, RATE)) !== null
    })
    expect(clean).toBe(0)
  })

  it('it needs no pause: under chords that never stop each line is told within 1 dB', () => {
    const [samples] = withEffects(
      programme('organ', RATE, SECONDS, 2),
      RATE,
      { hum: { mains: 60, level: -50, lines: 'even' } },
      2,
    )
    const hum = findHumUnder(samples, RATE)
    expect(hum?.mains).toBe(60)
    // As planted: 0.1, 1, 0.5 and 0.25 of the amplitude, in all −50 dBFS.
    const planted = { 1: -71.2, 2: -51.2, 4: -57.2, 6: -63.2 } as Record<number, number>
    expect(hum?.lines.map(({ order }) => order)).toEqual([1, 2, 4, 6])
    for (const { order, level } of hum?.lines ?? [])
      expect(Math.abs(level - (planted[order] as number))).toBeLessThan(1)
  })

  it('a wave that was cut before a noise was added is told, by 3 dB and by 6; an uncut one is not', () => {
    const cut = (by: number) =>
      found((kind, seed) => {
        const samples = programme(kind, RATE, 4, seed)
        const limit = peakOf(samples) * 10 ** (-by / 20)
        const noise = programme('voice', RATE, 4, seed + 50).map((x) => 1e-4 * x)
        const clipped = samples.map((x, i) => Math.max(-limit, Math.min(limit, x)) + (noise[i] ?? 0))
        return clippedIn(clipped, peakOf(clipped)) !== null
      })
    expect(cut(3)).toBeGreaterThanOrEqual(0.9 * all)
    expect(cut(6)).toBeGreaterThanOrEqual(0.9 * all)
    expect(
      found((kind, seed) => clippedIn(programme(kind, RATE, 4, seed), peakOf(programme(kind, RATE, 4, seed))) !== null),
    ).toBe(0)
  })

  it('holes in the rests, amid a converter’s noise, are gaps; a fade to nothing and a gate are not', () => {
    for (const seed of seeds) {
      const samples = programme('speech', RATE, SECONDS, seed)
      expect(findDropouts(samples, RATE).count, `clean, seed ${seed}`).toBe(0)
      const rests = restsOf(samples).slice(0, 3)
      expect(rests.length).toBeGreaterThan(0)
      for (const at of rests) samples.fill(0, at, at + 64)
      expect(findDropouts(samples, RATE).kinds.gap, `seed ${seed}`).toBe(rests.length)
    }
    const fading = sine(RATE, 1, 300, -20).map((x, i) => Math.round(x * Math.exp(-i / 2000) * 32_768) / 32_768)
    expect(findDropouts(fading, RATE).count).toBe(0)
    const gated = programme('speech', RATE, 2, 1)
    gated.fill(0, 20_000, 40_000)
    expect(findDropouts(gated, RATE).kinds.gap).toBe(Number(Math.abs(gated[19_999] as number) >= 0.002))
  })
})

describe('flat tops', () => {
  it('a sine cut by 1 dB has one at each peak, an uncut one none', () => {
    const whole = sine(RATE, 1, 300, -6)
    const limit = peakOf(whole) * 10 ** (-1 / 20)
    expect(flatTops(whole, peakOf(whole))).toBe(0)
    const cut = whole.map((x) => Math.max(-limit, Math.min(limit, x)))
    expect(Math.abs(flatTops(cut, limit) - 600)).toBeLessThanOrEqual(1)
  })
})

const peakOf = (samples: Float64Array) => samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0)

/** Frames in the middle of rests of a quarter of a second and more. */
function restsOf(samples: Float64Array): number[] {
  const rests: number[] = []
  let quiet = 0
  samples.forEach((x, i) => {
    quiet = Math.abs(x) < 0.001 ? quiet + 1 : 0
    if (quiet === RATE / 4) rests.push(i - RATE / 8)
  })
  return rests
}
