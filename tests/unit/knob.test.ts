import { expect, it } from 'vitest'
import { gainToPosition, positionInWords, positionToGain } from '#core/chain/knob'

const table = [
  { position: 7, gain: 0 },
  { position: 12, gain: 27.5 },
  { position: 17, gain: 60 },
] as never
const curved = [
  { position: 7, gain: 0 },
  { position: 9, gain: 3 },
  { position: 11, gain: 12 },
  { position: 13, gain: 31 },
  { position: 15, gain: 31 },
  { position: 17, gain: 60 },
] as never

it('a gain is a position, and the marks themselves are met', () => {
  expect(gainToPosition(table, 0)).toBe(7)
  expect(gainToPosition(table, 27.5)).toBe(12)
  expect(gainToPosition(table, 43.75)).toBeCloseTo(14.5, 0)
})
it('position and gain are each other’s inverse all along the turn', () => {
  for (let position = 7; position <= 13; position += 0.05) {
    const gain = positionToGain(curved, position) as number
    expect(gainToPosition(curved, gain)).toBeCloseTo(position, 6)
  }
})
it('the gain never falls while the knob turns up, nor leaves the two marks beside it', () => {
  let before = -1
  for (let position = 7; position <= 17; position += 0.01) {
    const gain = positionToGain(curved, position) as number
    expect(gain).toBeGreaterThanOrEqual(before - 1e-9)
    if (position > 13 && position < 15) expect(gain).toBeCloseTo(31, 9)
    before = gain
  }
})
it('marks on a straight line give the straight line between them', () => {
  expect(
    positionToGain(
      [
        { position: 7, gain: 0 },
        { position: 10, gain: 30 },
        { position: 17, gain: 100 },
      ] as never,
      8.5,
    ),
  ).toBeCloseTo(15, 9)
})
it('outside the marks there is no position', () => {
  expect(gainToPosition(table, 61)).toBeNull()
  expect(gainToPosition([], 3)).toBeNull()
  expect(positionToGain(table, 6.9)).toBeNull()
})
it('a dead stretch of the knob reads as its beginning', () => {
  expect(
    gainToPosition(
      [
        { position: 7, gain: 0 },
        { position: 9, gain: 0 },
      ] as never,
      0,
    ),
  ).toBe(7)
})
it.each([
  [7, 'seven o’clock'],
  [10.5, 'half past ten'],
  [12.05, 'twelve o’clock'],
  [12.75, 'a quarter to one'],
  [16.3, 'a quarter past four'],
  [17, 'five o’clock'],
])('%d is %s', (position, words) => {
  expect(positionInWords(position)).toBe(words)
})
