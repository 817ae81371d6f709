import jStat from 'jstat'
import { median as medianOf, sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import type { ClippingChance } from '#core/measure/clipping-chance'
import { clippingChance } from '#core/measure/clipping-chance'
import type { Gumbel } from '#core/numeric/gumbel'
import { fitGumbel, gumbelBelow, gumbelQuantile } from '#core/numeric/gumbel'
import { studentQuantile } from '#core/numeric/laws'
import { halfRange, mean, median, standardDeviation } from '#core/numeric/statistics'
import { seeded } from '#core/numeric/random'
import { jstatModule } from '../../scripts/jstat-used'

/** If W has a Weibull law of shape 1/scale and scale e^(−location), −ln W has the Gumbel law: so the library's Weibull law gives it. */
const gumbel = {
  cdf: (x: number, location: number, scale: number) =>
    1 - jStat.weibull.cdf(Math.exp(-x), Math.exp(-location), 1 / scale),
  quantile: (p: number, location: number, scale: number) =>
    -Math.log(jStat.weibull.inv(1 - p, Math.exp(-location), 1 / scale)),
  logpdf: (x: number, location: number, scale: number) =>
    Math.log(jStat.weibull.pdf(Math.exp(-x), Math.exp(-location), 1 / scale)) - x,
}

const values = (count: number, seed: number) => {
  const next = seeded(seed)
  return Array.from({ length: count }, () => 20 * next() - 7)
}
/** Draws from a Gumbel law by the library's quantile. */
const drawn = (count: number, location: number, scale: number, next: () => number) =>
  Array.from({ length: count }, () => gumbel.quantile(next(), location, scale))

describe('what the browser gets of jStat', () => {
  it('computes the same as the whole package, in less than half of its size', async () => {
    const code = jstatModule()
    const { default: part } = (await import(/* @vite-ignore */ `data:text/javascript,${encodeURIComponent(code)}`)) as {
      default: typeof jStat
    }
    const next = seeded(7)
    const matrix = (rows: number, columns: number) =>
      Array.from({ length: rows }, () => Array.from({ length: columns }, () => 2 * next() - 1))
    for (let i = 0; i < 100; i++) {
      const columns = 1 + (i % 4)
      const [tall, square, p] = [matrix(columns + 3, columns), matrix(columns, columns), next()]
      const by = (library: typeof jStat) => [
        library.QR(structuredClone(tall)),
        library.inv(structuredClone(square)),
        library.erf(3 * p),
        library.erfcinv(2 * p),
        library.ibetainv(p, (i + 1) / 2, 0.5),
      ]
      expect(by(part)).toEqual(by(jStat))
    }
    expect(code).not.toContain('jStat.SVD')
    expect(code.length).toBeLessThan(40_000)
  })
})

describe('against the registry’s statistics libraries (simple-statistics, jstat)', () => {
  it.each([2, 3, 10, 101])('mean, deviation and median of %i values', (count) => {
    const list = values(count, count)
    expect(standardDeviation(list)).toBeCloseTo(sampleStandardDeviation(list), 10)
    expect(median(list)).toBeCloseTo(medianOf(list), 12)
    expect(mean(list)).toBeCloseTo(list.reduce((a, b) => a + b) / count, 10)
    expect(halfRange(list)).toBeCloseTo((Math.max(...list) - Math.min(...list)) / 2, 12)
  })
  it('Gumbel law and its quantile', () => {
    const law: Gumbel = { location: 0.3, scale: 0.05, count: 1 }
    for (const x of [0.1, 0.25, 0.3, 0.5, 0.9]) expect(gumbelBelow(law, x)).toBeCloseTo(gumbel.cdf(x, 0.3, 0.05), 12)
    for (const p of [0.001, 0.5, 0.99, 0.99999])
      expect(gumbelQuantile(law, p)).toBeCloseTo(gumbel.quantile(p, 0.3, 0.05), 9)
  })
  it('the fit is the greatest likelihood: by the library’s density every neighbour is less likely', () => {
    const data = drawn(60, -20, 2.5, seeded(4))
    const fit = fitGumbel(data) as Gumbel
    const likelihood = (location: number, scale: number) =>
      data.reduce((sum, x) => sum + gumbel.logpdf(x, location, scale), 0)
    const best = likelihood(fit.location, fit.scale)
    for (const [dl, ds] of [
      [0.01, 0],
      [-0.01, 0],
      [0, 0.01],
      [0, -0.01],
      [0.01, 0.01],
      [-0.01, 0.01],
    ] as const)
      expect(likelihood(fit.location + dl, fit.scale + ds)).toBeLessThan(best)
  })
  it.each([
    [0.95, 1],
    [0.95, 5],
    [0.95, 10],
    [0.99, 30],
  ])('Student’s t, two-sided %f with %i degrees of freedom', (probability, freedom) => {
    expect(studentQuantile(probability, freedom)).toBeCloseTo(jStat.studentt.inv((1 + probability) / 2, freedom), 5)
  })
  it('no law from two values or from equal ones', () => {
    expect(fitGumbel([1, 2])).toBeNull()
    expect(fitGumbel([3, 3, 3, 3])).toBeNull()
  })
})

describe('the chance of clipping', () => {
  const overviewOf = (peaks: readonly number[]) => ({
    seconds: 1,
    low: peaks.map((x) => -0.9 * x),
    high: [...peaks],
    power: peaks.map((x) => (x * x) / 20),
  })
  const [location, scale, minutes] = [0.35, 0.045, 10]
  const blocks = 60 * minutes
  const truth = {
    chance: 1 - gumbel.cdf(1, location, scale) ** blocks,
    seldom: 20 * Math.log10(gumbel.quantile(0.99 ** (1 / blocks), location, scale)),
  }

  it('400 rehearsals from a known law: the intervals hold the truth about 95 times in a hundred', () => {
    const next = seeded(11)
    let [chanceHeld, seldomHeld] = [0, 0]
    const found = Array.from(
      { length: 400 },
      () => clippingChance(overviewOf(drawn(40, location, scale, next)), 60 * minutes, 0) as ClippingChance,
    )
    for (const { between, seldomBetween } of found) {
      if (between[0] <= truth.chance && truth.chance <= between[1]) chanceHeld++
      if (seldomBetween[0] <= truth.seldom && truth.seldom <= seldomBetween[1]) seldomHeld++
    }
    for (const held of [chanceHeld, seldomHeld]) {
      expect(held).toBeGreaterThan(0.9 * 400)
      expect(held).toBeLessThan(0.99 * 400)
    }
  })
  it('of a long rehearsal it is the truth, and the gain it names brings the chance to 1 %', () => {
    const peaks = drawn(1200, location, scale, seeded(5))
    const found = clippingChance(overviewOf(peaks), 60 * minutes, 0) as ClippingChance
    // Forty blocks of thirty seconds each: the law of a block is that of thirty of its seconds.
    expect(found.blockSeconds).toBe(30)
    expect(Math.abs(found.seldomPassed - truth.seldom)).toBeLessThan(1.5)
    const turned = clippingChance(
      overviewOf(peaks.map((x) => x * 10 ** (found.change / 20))),
      60 * minutes,
      0,
    ) as ClippingChance
    expect(turned.chance).toBeCloseTo(0.01, 6)
    expect(turned.change).toBeCloseTo(0, 6)
  })
  it('a longer take is likelier to clip', () => {
    const peaks = drawn(60, location, scale, seeded(6))
    const chances = [1, 10, 100].map((min) => (clippingChance(overviewOf(peaks), 60 * min, 0) as ClippingChance).chance)
    expect([...chances].sort((a, b) => a - b)).toEqual(chances)
    expect(chances[0]).toBeLessThan(chances[2] as number)
  })
  it.each([
    ['too-short', drawn(8, location, scale, seeded(1)), 0],
    ['clipped', drawn(40, location, scale, seeded(1)), 3],
    ['silent', Array<number>(40).fill(0), 0],
    ['too-even', Array<number>(40).fill(0.5), 0],
  ] as const)('%s: told in words', (why, peaks, runs) => {
    const found = clippingChance(overviewOf(peaks), 600, runs)
    expect(found).toMatchObject({ why })
    expect('message' in found && found.message.length).toBeGreaterThan(15)
  })
  it('pauses say nothing of the peaks', () => {
    // As many seconds as there are blocks, so that a pause is a block of its own.
    const paused = drawn(20, location, scale, seeded(8)).flatMap((peak) => [peak, 0.0004])
    expect((clippingChance(overviewOf(paused), 600, 0) as ClippingChance).blocks).toBe(20)
  })
})
