import { Matrix, inverse } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import type { Session } from '#core/session'
import { applyChanges } from '#core/session'
import { inferReadings } from '#core/soundcheck/infer'
import { soundcheckOf } from '#core/soundcheck/soundcheck'
import { placeOf } from '#core/uncertainty/figures'
import { keepReading } from '#core/uncertainty/keep-reading'
import { doubtsOf } from '#core/uncertainty/uncertainty'
import { demoSession } from '../../demo'
import { example1, valid, withAt } from '../support/sessions'

type Reading = NonNullable<NonNullable<Session['soundcheck']>['readings']>[number]
const at = (id: string, stage: string, value: number, more: Partial<Reading> = {}): Reading => ({
  id,
  strip: 'narrator',
  stage,
  reads: 'peak',
  value,
  unit: 'dBFS',
  by: 'typed',
  ...more,
})
const read = (session: Session, readings: Reading[]): Session => ({ ...session, soundcheck: { readings } })
const peakAt = (session: Session, strip: string, stage: string): number => {
  const { walks } = doubtsOf(session)
  return walks.walkOf(strip).points.find((point) => point.stage === stage)?.peak ?? NaN
}

describe('one reading 4 dB over the plan with u 0.5, worked example 1 (Bayes’ rule for normal laws, by hand)', () => {
  const session = valid(withAt(example1(), ['target'], { low: -24, high: -18 }))
  const planned = peakAt(session, 'narrator', 'narrator-input')
  const [found] = inferReadings(doubtsOf(read(session, [at('r1', 'narrator-input', planned + 4, { spread: 0.5 })])))
  const shift = (name: string) => found?.explains.find(({ input }) => input.endsWith(`.${name}`))?.shift
  it.each([
    ['level', 2.88],
    ['crest', 0.46],
    ['sensitivity', 0.46],
    ['distance', 0.08],
    ['fullScale', 0.03],
    ['gain', 0.01],
    // The loads at the joint make 0.01 dB that the hand calculation leaves out.
  ])('shifts %s by %f dB', (name, value) => expect(Math.abs((shift(name) ?? 0) - value)).toBeLessThan(0.01))
  it('says that it is the source', () => {
    expect(found?.difference).toBeCloseTo(4, 6)
    expect(found?.says).toBe('4.0 dB louder than planned, and it is the source: 85 to 1 against a wrong gain.')
  })
  it('and that it fits: 4 dB are 1.2 u', () => expect(found?.contradicts).toBeNull())
  it('turns the gain so that what it reads comes to the middle of the window', () => {
    const [change] = found?.changes ?? []
    const before = session.strips[0]?.stages.at(-1)?.settings.gain ?? 0
    // The recorder's peak, 4 dB up less what Bayes' rule lays to the meter: 4 · 11.354/(11.354 + 0.25).
    const reads = planned + (4 * 11.354) / 11.604
    expect(found?.then).toBeCloseTo(reads + Number(change?.to) - before, 1)
    expect(found?.then).toBeGreaterThan(-22)
    expect(found?.then).toBeLessThan(-20)
  })
})

/** Several readings one after the other by the Kalman form, with a general library; the product works on all of them at once. */
function oneAfterTheOther(session: Session, readings: Reading[]) {
  const { inputs, linear, walks } = doubtsOf(session)
  const own = linear.get('narrator')
  let mean = Matrix.zeros(inputs.length, 1)
  let covariance = Matrix.eye(inputs.length)
  const rows = readings.map(({ stage, value, spread }) => {
    const point = walks.walkOf('narrator').points.findIndex((each) => each.stage === stage)
    const place = placeOf(point, 'peak')
    const row = new Matrix([
      inputs.map(({ path }) => own?.effects.find(({ input }) => input.path === path)?.slope[place] ?? 0),
    ])
    return { row, difference: value - (own?.values[place] ?? 0), u: spread ?? 0.5 }
  })
  for (const { row, difference, u } of rows) {
    const innovation = Matrix.add(row.mmul(covariance).mmul(row.transpose()), Matrix.eye(1).mul(u ** 2))
    const gain = covariance.mmul(row.transpose()).mmul(inverse(innovation))
    mean = Matrix.add(mean, gain.mmul(Matrix.sub(new Matrix([[difference]]), row.mmul(mean))))
    covariance = Matrix.sub(covariance, gain.mmul(row).mmul(covariance))
  }
  return rows.map(({ row }) =>
    inputs.map(({ path }, i) => ({
      path,
      shift: row.get(0, i) * mean.get(i, 0),
      u: Math.abs(row.get(0, i)) * Math.sqrt(covariance.get(i, i)),
    })),
  )
}

/** A preamp of its own before the interface, so that there are two meters’ worth of gains. */
const twoGains = (): Session => {
  const file = example1() as { gear: object[]; strips: { stages: object[] }[] }
  const [strip] = file.strips
  const [source, mic, input] = strip?.stages ?? []
  return valid({
    ...file,
    gear: [
      ...file.gear,
      {
        id: 'desk',
        kind: 'desk-channel',
        name: 'Sluice desk, channel 1',
        phantom: true,
        specs: {
          gainMin: 0,
          gainMax: 60,
          maxInput: 20,
          maxOutput: 22,
          ein: -126,
          inputImpedance: 2000,
          outputImpedance: 150,
        },
      },
    ],
    strips: [
      {
        ...strip,
        stages: [
          source,
          mic,
          { id: 'd', gear: 'desk', settings: { gain: 30, phantom: true } },
          { ...input, settings: { gain: 0 } },
        ],
      },
    ],
  })
}

describe('several readings (GUM: the same as one after the other, by the Kalman form in ml-matrix)', () => {
  const session = twoGains()
  const [desk, recorder] = ['d', 'narrator-input'].map((stage) => peakAt(session, 'narrator', stage)) as [
    number,
    number,
  ]
  it.each([
    [[3.1], [0]],
    [
      [3.1, 2.4],
      [0, 1],
    ],
    [
      [-2, 2.2],
      [0, 1],
    ],
    [
      [0.4, 3.6],
      [1, 0],
    ],
  ])('differences %j at meters %j: parts and what is left of them within 1 %%', (differences, places) => {
    const readings = differences.map((difference, i) =>
      places[i] === 0
        ? at(`r${i}`, 'd', desk + difference, { unit: 'dBu', spread: 0.8 })
        : at(`r${i}`, 'narrator-input', recorder + difference, { spread: 0.5 }),
    )
    const found = inferReadings(doubtsOf(read(session, readings)))
    const expected = oneAfterTheOther(session, readings)
    found.forEach(({ explains }, k) => {
      expect(explains.length).toBeGreaterThan(3)
      for (const { input, shift, u } of explains) {
        const other = expected[k]?.find(({ path }) => path === input)
        expect(shift).toBeCloseTo(other?.shift ?? NaN, 6)
        expect(u / (other?.u ?? NaN)).toBeCloseTo(1, 2)
      }
    })
  })
  it('PFL as planned and the recorder 4 dB over: not the source, something behind the desk’s meter', () => {
    const found = inferReadings(
      doubtsOf(
        read(session, [
          at('pfl', 'd', desk, { unit: 'dBu', spread: 0.3 }),
          at('rec', 'narrator-input', recorder + 1.2, { spread: 0.3 }),
        ]),
      ),
    )
    expect(found[1]?.says).toMatch(/it is the gain/)
    const gain = found[1]?.explains.filter(({ cause }) => cause === 'gain').reduce((sum, { shift }) => sum + shift, 0)
    const source = found[1]?.explains
      .filter(({ cause }) => cause === 'source')
      .reduce((sum, { shift }) => sum + shift, 0)
    expect(gain).toBeGreaterThan(1.5 * Math.abs(source ?? 0))
  })
  it('readings that cannot both be right are said to contradict, each naming the other, and nothing is to be turned', () => {
    const [pfl, rec] = inferReadings(
      doubtsOf(
        read(session, [
          at('pfl', 'd', desk - 4, { unit: 'dBu', spread: 0.5 }),
          at('rec', 'narrator-input', recorder + 4, { spread: 0.5 }),
        ]),
      ),
    )
    expect(pfl?.contradicts?.reading).toBe('rec')
    expect(rec?.contradicts?.reading).toBe('pfl')
    expect(rec?.says).toMatch(/contradicts the reading at Sluice desk, channel 1 .* pad, a knob/)
    expect(rec?.changes).toEqual([])
  })
  it('one that the figures alone do not allow is said so', () => {
    const [far] = inferReadings(doubtsOf(read(session, [at('far', 'narrator-input', recorder - 30)])))
    expect(far?.contradicts?.reading).toBeNull()
    expect(far?.says).toMatch(/30\.0 dB under .* more than the figures allow .* pad/)
  })
})

describe('meters', () => {
  const session = twoGains()
  const desk = peakAt(session, 'narrator', 'd')
  const average =
    doubtsOf(session)
      .walks.walkOf('narrator')
      .points.find(({ stage }) => stage === 'd')?.average ?? NaN
  const differenceOf = (reading: Reading) => inferReadings(doubtsOf(read(session, [reading])))[0]?.difference
  it('PFL counts from the zero mark, +4 dBu, and hears no fader', () => {
    expect(differenceOf(at('r', 'd', desk - 4, { reads: 'pfl', unit: 'dB' }))).toBeCloseTo(0, 6)
    const faded = applyChanges(session, [{ strip: 'narrator', stage: 'd', setting: 'fader', to: -12 as never }])
    const found = inferReadings(doubtsOf(read(faded, [at('r', 'd', desk - 4, { reads: 'pfl', unit: 'dB' })])))
    expect(found[0]?.difference).toBeCloseTo(0, 6)
  })
  it('a VU’s needle follows the average; its 0 is the zero mark, on a recorder −18 dBFS (EBU R 68)', () => {
    expect(differenceOf(at('r', 'd', average - 4, { reads: 'vu', unit: 'VU' }))).toBeCloseTo(0, 6)
    const end = doubtsOf(session).walks.walkOf('narrator').points.at(-1)
    expect(differenceOf(at('r', 'narrator-input', (end?.average ?? 0) + 18, { reads: 'vu', unit: 'VU' }))).toBeCloseTo(
      0,
      6,
    )
  })
  it('a light and a needle are worth ±3 dB: they move less than a sample peak does', () => {
    const moves = (reads: Reading['reads']) =>
      inferReadings(doubtsOf(read(session, [at('r', 'narrator-input', -8, { reads })])))[0]?.explains.reduce(
        (sum, { shift }) => sum + shift,
        0,
      ) ?? 0
    expect(moves('light')).toBeLessThan(moves('peak'))
  })
  it('no recorder reads dB SPL: said, not worked with', () => {
    const [found] = inferReadings(
      doubtsOf(read(session, [at('r', 'narrator-input', 90, { reads: 'spl', unit: 'dB SPL' })])),
    )
    expect(found).toMatchObject({ difference: null, explains: [], changes: [] })
    expect(found?.says).toMatch(/no meter in dB SPL/)
  })
})

describe('a reading remembers what was expected when it was taken', () => {
  const session = valid(example1())
  const planned = peakAt(session, 'narrator', 'narrator-input')
  const taken = at('r1', 'narrator-input', planned + 4, { expected: planned })
  it('turning the gain afterwards makes the source no louder', () => {
    const gain = session.strips[0]?.stages.at(-1)?.settings.gain ?? 0
    const turned = applyChanges(read(session, [taken]), [
      { strip: 'narrator', stage: 'narrator-input', setting: 'gain', to: (gain - 6) as never },
    ])
    expect(inferReadings(doubtsOf(turned))[0]?.difference).toBeCloseTo(4, 6)
  })
  it('kept, it explains nothing twice, and another reading of the same passage is as planned', () => {
    const other: Reading = { ...at('r2', 'narrator-input', planned + 4, { reads: 'light', expected: planned }) }
    const kept = keepReading(read(session, [taken, other]), taken, '2026-11-27')
    const after = kept.ok ? kept.session : session
    const found = inferReadings(doubtsOf(after))
    expect(found.find(({ id }) => id === 'r1')).toMatchObject({ explains: [] })
    expect(found.find(({ id }) => id === 'r2')?.difference).toBeCloseTo(0, 1)
  })
})

describe('advice', () => {
  it('no reading of generated size makes it turn a gain past a ceiling, or away from the window', () => {
    const session = valid(withAt(example1(), ['target'], { low: -18, high: -12 }))
    const planned = peakAt(session, 'narrator', 'narrator-input')
    let turned = 0
    for (let difference = -8; difference <= 8; difference += 0.5) {
      const readings = [at('r', 'narrator-input', planned + difference, { spread: 0.5 })]
      const [found] = soundcheckOf(read(session, readings)).readings
      if (!found?.changes.length) continue
      turned++
      const kept = keepReading(session, readings[0] as Reading, '2026-11-27')
      const after = applyChanges(kept.ok ? kept.session : session, found.changes)
      const reads = peakAt(after, 'narrator', 'narrator-input')
      expect(reads).toBeLessThan(-11.7)
      expect(reads).toBeGreaterThan(-18.3)
    }
    expect(turned).toBeGreaterThan(10)
  })
  it('of the demo every step has its place, and the answer counts what is open', () => {
    const { steps, open } = soundcheckOf(demoSession())
    expect(open).toBe(steps.length)
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length)
  })
})
