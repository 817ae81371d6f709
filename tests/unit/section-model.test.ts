import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { conventions } from '#core/model'
import { RULER, drawSection } from '~/features/path/section-drawing'
import { sectionModel } from '~/shared/section/section-model'
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
    expect(columns[1]?.ceilingText).toBe('no maximum given')
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
})

describe('the section as a drawing', () => {
  const [width, height] = [RULER + 600, 280]
  const numbers = (path: string) => (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number)
  it('stands within its frame, and says nothing that is not a number', () => {
    const { areas, edges, lines, texts } = drawSection(model('ceiling'), width, height)
    const paths = [...Object.values(areas), ...Object.values(edges), ...lines.map(({ path }) => path)]
    expect(paths.join('')).not.toMatch(/NaN|undefined|Infinity/)
    expect(texts.every(({ x, y }) => x >= 0 && x <= width && y >= 0 && y <= height)).toBe(true)
    for (const path of Object.values(areas)) expect(Math.max(...numbers(path))).toBeLessThanOrEqual(width)
  })
  it('the band lies level in each column and slopes at the connections: two curves in every edge of three columns', () => {
    const { edges, y, perDb } = drawSection(model('ceiling'), width, height)
    expect(edges.surge.match(/C/g)).toHaveLength(1) // microphone and source differ by nothing under the ceiling
    expect(edges.surge.match(/H/g)?.length).toBeGreaterThanOrEqual(3)
    expect(y(0) - y(-20)).toBeCloseTo(-20 * perDb, 9)
  })
  it('where a column has no ceiling the bank is broken there, and the words say so', () => {
    const file = withAt(example1(), ['gear', 1, 'specs', 'maxSpl'], undefined)
    const { edges, texts } = drawSection(model('ceiling', file), width, height)
    // Neither the source nor the microphone has one: the bank begins at the interface.
    expect(numbers(edges.ceiling)[0]).toBeGreaterThan(RULER + 400)
    expect(texts.map(({ words }) => words)).toContain('no maximum given')
    // Beside each other in narrow columns these words would cover each other.
    const narrow = drawSection(model('ceiling', file), RULER + 270, height).texts.map(({ words }) => words)
    expect(narrow).toContain('none given')
    expect(narrow).not.toContain('no maximum given')
  })
  it('names what is tightest and what clips; narrow columns leave out units and the window’s name', () => {
    const words = (reading: Parameters<typeof model>[0], file: object | undefined, wide: number) =>
      drawSection(model(reading, file), wide, height).texts.map((each) => each.words)
    expect(words('ceiling', undefined, width)).toEqual(expect.arrayContaining(['least', 'window', '−30.5 dBFS']))
    // The last column's words end where the section does.
    expect(words('ceiling', undefined, RULER + 3 * 230)).toContain('least headroom')
    const narrow = words('ceiling', undefined, RULER + 270)
    expect(narrow).toContain('−30.5')
    expect(narrow).not.toContain('window')
    const loud = withAt(example1(), ['strips', 0, 'stages', 2, 'settings', 'gain'], 60)
    expect(words('ceiling', loud, width)).toContain('clips')
  })
})
