import { expect, it } from 'vitest'
import { gainToPosition, positionInWords } from '#core/chain/knob'

const table = [{ position: 7, gain: 0 }, { position: 12, gain: 27.5 }, { position: 17, gain: 60 }] as never

it('a gain is a position between two marks', () => {
  expect(gainToPosition(table, 0)).toBe(7)
  expect(gainToPosition(table, 27.5)).toBe(12)
  expect(gainToPosition(table, 43.75)).toBe(14.5)
})
it('outside the marks there is no position', () => {
  expect(gainToPosition(table, 61)).toBeNull()
  expect(gainToPosition([], 3)).toBeNull()
})
it('a dead stretch of the knob reads as its beginning', () => {
  expect(gainToPosition([{ position: 7, gain: 0 }, { position: 9, gain: 0 }] as never, 0)).toBe(7)
})
it.each([[7, 'seven o’clock'], [10.5, 'half past ten'], [12.05, 'twelve o’clock'], [12.75, 'a quarter to one'], [16.3, 'a quarter past four'], [17, 'five o’clock']])('%d is %s', (position, words) => {
  expect(positionInWords(position)).toBe(words)
})
