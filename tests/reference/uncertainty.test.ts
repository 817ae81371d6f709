import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { placeOf } from '#core/uncertainty/figures'
import type { SessionUncertainty } from '#core/uncertainty/uncertainty'
import { uncertaintyOf, propagate } from '#core/uncertainty/uncertainty'
import { uncertainInputs } from '#core/uncertainty/inputs'
import { Draws } from '#core/uncertainty/monte-carlo'
import { withIntervals } from '#core/uncertainty/intervals'
import { linearised } from '#core/uncertainty/linear'
import { PerturbedEvaluations } from '#core/uncertainty/perturbed-evaluations'
import { whatNext } from '#core/uncertainty/next'
import type { Session } from '#core/session'
import { standardUncertainty } from '#core/model'
import { normalChance } from '#core/numeric/laws'
import { example1, valid, withAt } from '../support/sessions'
import { anySession } from '../support/generate'
import { runs } from '../support/runs'

/** Worked example 1 without loads that may be off: the hand calculation knows six inputs. */
const SIX = ['level', 'crest', 'sensitivity', 'distance', 'fullScale', 'gain']
const shareOf = (shares: { input: string; share: number }[], name: string) =>
  shares.filter(({ input }) => input.endsWith(`.${name}`)).reduce((sum, { share }) => sum + share, 0)

describe('worked example 1 (GUM, JCGM 100, 5.1.2, by hand: half-widths 5, 2, 2, 10 %, 0.5, 0.3)', () => {
  const session = valid(example1())
  const [strip] = uncertaintyOf(session).strips
  const end = strip?.points.at(-1)
  it('the recorded peak is known to 3.37 dB', () => expect(end?.peak.u).toBeCloseTo(3.37, 2))
  it.each([
    ['level', 73.5],
    ['crest', 11.8],
    ['sensitivity', 11.8],
    ['distance', 2.0],
    ['fullScale', 0.7],
    ['gain', 0.3],
  ])('of its variance %s makes %f %%', (name, share) =>
    // The loads at the joint make 0.1 % that the hand calculation leaves out.
    expect(100 * shareOf(end?.peak.shares ?? [], name)).toBeCloseTo(share, 0),
  )
  it('nothing else counts', () => {
    const rest = end?.peak.shares.filter(({ input }) => !SIX.some((name) => input.endsWith(`.${name}`))) ?? []
    expect(rest.reduce((sum, { share }) => sum + share, 0)).toBeLessThan(0.002)
  })
  it('with the surge 3.79 dB, and 13.49 dB are passed with 0.018 %', () => {
    expect(end?.surgeHeadroom?.value).toBeCloseTo(13.49, 2)
    expect(end?.surgeHeadroom?.u).toBeCloseTo(3.79, 2)
    expect(100 * (strip?.chanceOfClipping?.surge ?? 0)).toBeCloseTo(0.018, 2)
  })
  it('the first thing to do is one reading: ±6.7 → ±1.0 dB in 1 min', () => {
    const [first] = whatNext(propagate(session))
    expect(first).toMatchObject({ what: 'Take a peak reading at the recorder', minutes: 1 })
    expect(2 * (first?.before ?? 0)).toBeCloseTo(6.7, 1)
    expect(2 * (first?.after ?? 0)).toBeCloseTo(1.0, 1)
  })
  it('that reading kept, u at the recorder is 0.50 dB (Bayes’ rule by hand), and the same voice is surer everywhere', () => {
    const read = valid({
      ...example1(),
      version: 2,
      soundcheck: { readings: [{ id: 'r1', strip: 'narrator', stage: 'narrator-input', value: -19.5, spread: 0.5 }] },
    })
    const after = uncertaintyOf(read).strips[0]?.points
    expect(after?.at(-1)?.peak.u).toBeCloseTo(0.5 * Math.sqrt(11.354 / (11.354 + 0.25)), 3)
    // The rest of the source, by hand: what is not in the reading's other inputs.
    expect(after?.[0]?.peak.u).toBeLessThan(1.8)
    const shares = after?.at(-1)?.peak.shares ?? []
    expect(shares.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6)
  })
})

/** A distance of 0.3 m by eye, ± 10 % as a factor, in the time in air at 343.2 m/s: 0.874 ms · ln 1.1/√3. */
const AIR_U = ((1000 * 0.3) / 343.2) * Math.sinh(Math.log(1.1) / Math.sqrt(3))

describe('a fitted round trip (2 buffers; handbook of regression: s·√(1 + 1/n) for a new value)', () => {
  const measured = [
    [64, 5.05],
    [128, 7.66],
    [256, 13.1],
    [512, 23.72],
  ] as const
  const session = valid({
    ...example1(),
    version: 2,
    system: {
      sampleRate: 48_000,
      bufferFrames: 1024,
      roundTrips: measured.map(([bufferFrames, milliseconds]) => ({ sampleRate: 48_000, bufferFrames, milliseconds })),
    },
  })
  it('u of the way through the host is that of the prediction', () => {
    const rest = measured.map(([frames, ms]) => ms - (2 * frames) / 48)
    const mean = rest.reduce((sum, each) => sum + each, 0) / 4
    const s = Math.sqrt(rest.reduce((sum, each) => sum + (each - mean) ** 2, 0) / 3)
    // Student's t of three degrees of freedom, 95 % (tables): 3.182. With so few points s alone would promise too much.
    const expected = (3.1824 / 1.96) * s * Math.sqrt(1 + 1 / 4)
    const software = uncertaintyOf(session).strips[0]?.latency.find(({ route }) => route === 'software')
    expect(software?.u).toBeCloseTo(Math.hypot(expected, AIR_U), 3)
    expect(software?.shares[0]?.input).toBe('system.roundTrips')
  })
})

describe('a printed round trip (half-widths of 10 %, a/√3)', () => {
  it('frames, fixed time and distance, by hand: √(2·20² + 2·24²)/48 and 0.5 ms, a tenth of each, and the air', () => {
    const software = uncertaintyOf(valid(example1())).strips[0]?.latency.find(({ route }) => route === 'software')
    const frames = Math.sqrt(2 * 20 ** 2 + 2 * 24 ** 2) / 48
    expect(software?.u).toBeCloseTo(Math.hypot((0.1 * Math.hypot(frames, 0.5)) / Math.sqrt(3), AIR_U), 4)
  })
})

describe('published figures', () => {
  it('GUM 4.3.7: a value within ±0.40 has u = 0.23; 4.3.1: a calibrated standard deviation stays', () => {
    expect(standardUncertainty({ value: 0.4, is: 'half-range' })).toBeCloseTo(0.23, 2)
    expect(standardUncertainty({ value: 0.24, is: 'sd' })).toBe(0.24)
    expect(standardUncertainty({ value: 1.96, is: 'ci95' })).toBeCloseTo(1, 12)
  })
  it('GUM 4.3.7 example 2 with 5.1.5: a mean of u 12 and a calibration within ±15 together 15 (dB for 10 µV)', () => {
    const session = valid({
      format: 'remetra.session',
      version: 2,
      id: 'voltmeter',
      name: 'The voltmeter of the guide',
      gear: [
        {
          id: 'mean',
          kind: 'playback',
          name: 'Mean of the readings',
          specs: { level: -20, crest: 3 },
          measured: {
            level: { value: -20, spread: { value: 1.2, is: 'sd' } },
            crest: { value: 3, spread: 0 },
            surge: { value: 0, spread: 0 },
          },
        },
        {
          id: 'unit',
          kind: 'interface',
          name: 'Calibration',
          inputs: [input()],
          outputs: [
            { id: 'out', type: 'line', specs: { fullScale: 10 }, measured: { fullScale: { value: 10, spread: 1.5 } } },
          ],
        },
      ],
      strips: [
        {
          id: 'v',
          name: 'V',
          stages: [
            { id: 'v1', gear: 'mean' },
            { id: 'v2', gear: 'unit', port: 'out' },
          ],
        },
      ],
    })
    const average = uncertaintyOf(session).strips[0]?.points.at(-1)?.average
    expect(average?.u).toBeCloseTo(Math.sqrt(1.2 ** 2 + 0.75), 6)
    expect(10 * (average?.u ?? 0)).toBeCloseTo(15, 0)
  })
  it.each([
    [-2.326, 0.01],
    [-1, 0.158655],
    [0, 0.5],
    [1.96, 0.975],
    [-3.56, 0.000185],
  ])('tables of the normal law: Φ(%f) = %f', (z, chance) => expect(normalChance(z)).toBeCloseTo(chance, 4))
})

const input = () => ({ id: 'in', type: 'line', specs: { fullScale: 10, dynamicRange: 110 } })

/** u of every figure against the spread of draws. */
const DRAWS = 20_000
/** What is less uncertain than a thousandth of a decibel is shown as certain. */
const THOUSANDTH = 1e-3

/** Draws that go on to the end, whatever their error. */
function manyDraws({ evaluations, inputs }: SessionUncertainty, strip: string, places: readonly number[]): Draws {
  const draws = new Draws(evaluations, inputs, new Map([[strip, places]]), DRAWS)
  for (let made = 0; made < DRAWS; made += 125) draws.batch()
  return draws
}

describe('against Monte Carlo (JCGM 101), 20,000 draws, seeded', () => {
  const sessions = fc.sample(anySession, { seed: 20260, numRuns: 400 }).filter(({ strips }) => strips.length <= 2)
  it('u of each figure within 5 %, or it is said to be curved and an interval given', { timeout: 300_000 }, () => {
    let compared = 0
    let curvedOnes = 0
    for (const session of sessions.slice(0, runs(16))) {
      const doubts = propagate(session)
      const strip = session.strips[0]?.id as string
      const own = doubts.strips.get(strip)
      if (!own || own.points.length === 0) continue
      const last = own.points.length - 1
      const places = (['average', 'peak', 'headroom', 'surgeHeadroom', 'noise', 'snr'] as const)
        .map((name) => placeOf(last, name))
        .filter((at) => !Number.isNaN(own.linear.values[at]) && own.u(at) > THOUSANDTH)
      const told = manyDraws(doubts, strip, places)
      for (const at of places) {
        const { u, curved } = own.figure(at)
        if (curved) {
          curvedOnes++
          continue
        }
        compared++
        const truth = told.of(strip, at)?.u ?? 0
        expect(Math.abs(u - truth) / truth, `${session.id} figure ${at}: ${u} against ${truth}`).toBeLessThan(0.05)
      }
    }
    expect(compared).toBeGreaterThan(runs(25))
    expect(curvedOnes).toBeGreaterThan(0)
  })
  it('a curved figure gets the spread and the middle 95 % of the draws', () => {
    // A limiter in the way: the loudest voices are held.
    const session = limited()
    const doubts = propagate(session)
    const { strips } = withIntervals(doubts)
    const peak = strips[0]?.points.at(-1)?.peak
    const at = placeOf((strips[0]?.points.length ?? 1) - 1, 'peak')
    const truth = manyDraws(doubts, 'narrator', [at]).of('narrator', at)
    expect(peak?.curved).toBe(true)
    expect(peak?.u).toBeCloseTo(truth?.u ?? 0, 1)
    // It stops where two hundredths are reached, long before.
    expect(Math.abs((peak?.u ?? 0) / (truth?.u ?? 1) - 1)).toBeLessThan(0.06)
    const few = new Draws(doubts.evaluations, doubts.inputs, new Map([['narrator', [at]]]))
    let batches = 0
    while (!few.areEnough) {
      few.batch()
      batches++
    }
    expect(125 * batches).toBeGreaterThanOrEqual(1000)
    expect(125 * batches).toBeLessThan(DRAWS / 4)
    expect(peak?.interval?.high).toBeCloseTo(-14, 6)
    expect(peak?.interval?.low).toBeLessThan(-20)
  })
})

const limited = (): Session => {
  const file = example1() as { gear: object[]; strips: { stages: object[] }[] }
  return valid({
    ...file,
    gear: [
      ...file.gear,
      {
        id: 'limiter',
        kind: 'processor',
        name: 'Limiter',
        domain: 'digital',
        blocks: [{ type: 'limiter', ceiling: -14 }],
        specs: {},
      },
    ],
    strips: file.strips.map((strip) => ({ ...strip, stages: [...strip.stages, { id: 'n4', gear: 'limiter' }] })),
  })
}

describe('what must hold of every session', () => {
  const some = fc.sample(anySession, { seed: 4242, numRuns: 60 })
  it('shares of a figure add to 1', () => {
    for (const session of some)
      for (const { points } of uncertaintyOf(session).strips)
        for (const { peak, noise, headroom } of points)
          for (const figure of [peak, noise, headroom])
            if (figure && figure.u > 0)
              expect(figure.shares.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 4)
  })
  it('more spread of an input never lowers a figure’s u; knowing it exactly never raises one', () => {
    for (const session of some.slice(0, 25)) {
      const evaluations = new PerturbedEvaluations(session)
      const inputs = uncertainInputs(session)
      const now = linearised(evaluations, inputs)
      for (const each of inputs.slice(0, 8)) {
        const wider = linearised(
          evaluations,
          inputs.map((one) => (one === each ? { ...one, doubt: { ...one.doubt, u: 0 } } : one)),
        )
        for (const [strip, { u }] of wider)
          u.forEach((value, i) => {
            if (!Number.isNaN(value)) expect(value).toBeLessThanOrEqual((now.get(strip)?.u[i] as number) + 1e-9)
          })
      }
    }
  })
  it('what a measuring is said to leave is never more than there was', () => {
    for (const session of some)
      for (const { before, after, minutes } of whatNext(propagate(session))) {
        expect(after).toBeLessThan(before)
        expect(minutes).toBeGreaterThan(0)
      }
  })
  it('the chance of clipping rises with the gain', () => {
    const chances = [20, 30, 40, 45, 50, 55, 60].map((gain) => {
      const session = valid(withAt(example1(), ['strips', 0, 'stages', 2, 'settings', 'gain'], gain))
      return uncertaintyOf(session).strips[0]?.chanceOfClipping?.surge ?? -1
    })
    chances.slice(1).forEach((chance, i) => expect(chance).toBeGreaterThanOrEqual(chances[i] as number))
    expect(chances.at(-1)).toBeGreaterThan(0.9)
  })
  it('a device in two strips is one input, and moves both', () => {
    const { inputs } = uncertaintyOf(valid(example1()))
    expect(new Set(inputs.map(({ path }) => path)).size).toBe(inputs.length)
  })
})
