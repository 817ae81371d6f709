import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { conventions } from '#core/session'
import { sectionChart } from '~/charts/section-chart'
import { sectionModel } from '~/charts/section-model'
import { example1, valid, withAt } from '../support/sessions'

const points = (file: object = example1()) => evaluateSession(valid(file)).strips[0]?.points ?? []
const model = (reading: 'ceiling' | 'own', file?: object) =>
  sectionModel(points(file), reading, 'narrator-input', conventions['peaks-18-12'])

describe('the section', () => {
  it('under the ceiling every ceiling lies at zero and the peak at minus its headroom', () => {
    const { columns } = model('ceiling')
    expect(columns.map((each) => each.ceiling)).toEqual([0, 0, 0])
    expect(columns[2]?.peak).toBeCloseTo(-19.487, 3)
    expect(columns[0]?.peak).toBeCloseTo(-44.553, 3)
  })
  it('in its own unit every column has its own levels', () => {
    expect(model('own').columns.map((each) => each.average)).toEqual(points().map((each) => each.average))
  })
  it('a stage without a printed limit hangs under the next stage’s clipping, and says so', () => {
    const file = withAt(example1(), ['gear', 1, 'specs', 'maxSpl'], undefined)
    const { columns } = model('ceiling', file)
    expect(columns[1]?.ceiling).toBeNull()
    expect(columns[1]?.ceilingText).toBe('no limit given')
    expect(columns[1]?.peak).toBeCloseTo(columns[2]?.peak ?? 0, 9)
  })
  it('the ruler holds everything, also an overload', () => {
    const loud = model('ceiling', withAt(example1(), ['strips', 0, 'stages', 2, 'settings', 'gain'], 60))
    for (const { columns, top, bottom } of [model('ceiling'), model('own'), loud]) {
      for (const column of columns) {
        expect(column.surge).toBeLessThan(top)
        expect(column.noise).toBeGreaterThan(bottom)
      }
    }
    expect(loud.columns[2]?.clipped).toBe(true)
  })
  it('the window stands at the recorder, on the ruler’s scale', () => {
    expect(model('ceiling').window).toMatchObject({ low: -18, high: -12 })
  })
  it('as a chart: one plateau per column in each of five layers, nothing that is not a number but gaps', () => {
    const palette = new Proxy({}, { get: () => '#000' }) as never
    const { data } = sectionChart({ model: model('ceiling'), palette })
    expect(data.datasets.map((each) => each.data.length)).toEqual([9, 9, 9, 9, 9])
    expect(data.datasets.flatMap((each) => each.data).every((each) => Number.isFinite(each.y))).toBe(true)
  })
})
