import { describe, expect, it } from 'vitest'
import { readTypedNumber, readTypedNumbers, settingFields, sampleRateField } from '#core/model'
import { soundSourceSpecs, microphoneSpecs } from '#core/gear'
import { formatDecimal, formatShort, formatSigned, parseQuantity } from '#core/units'

describe('decimals as people write them', () => {
  it.each([
    ['12.5', 12.5],
    ['12,5', 12.5],
    ['−12,5 dB', -12.5],
    ['+4 db', 4],
    [' 3 ', 3],
    ['.5', 0.5],
    ['1e3', null],
    ['abc', null],
    ['--3', null],
    ['3 m', null],
    ['', null],
  ])('"%s"', (text, value) => {
    expect(parseQuantity(text, 'dB')).toBe(value)
  })
  it.each([
    ['1.5k', 'Ω', 1500],
    ['1,5', 'Ω', 1.5],
    ['2.2 kΩ', 'Ω', 2200],
    ['1M', 'Ω', 1e6],
    ['−10 dBV', 'dBu', -7.782],
    ['300 mV', 'dBu', -8.239],
    ['30 cm', 'm', 0.3],
    ['−129 dB', 'dBu(A)', -129],
    ['-40 dBV/Pa', 'mV/Pa', 10],
    ['10 000', 'Ω', 10_000],
    ['12,5 dB', 'dB', 12.5],
  ])('"%s" in a field of %s', (text, unit, value) => {
    expect(parseQuantity(text, unit)).toBeCloseTo(value, 3)
  })
  it.each(['10,000', '1,000,5', '1.234.567,8.9'])('"%s" is never taken for a small number', (text) => {
    const value = parseQuantity(text, 'Ω')
    expect(value === null || value === 'ambiguous').toBe(true)
  })
  it('and the field says why', () => {
    const reading = readTypedNumber(microphoneSpecs.impedance, '10,000')
    expect(reading.ok ? '' : reading.message).toMatch(/10000|10 000/)
  })
  it('never shows NaN, infinity or minus zero', () => {
    expect([Number.NaN, Infinity, null, undefined].map((value) => formatDecimal(value, 1))).toEqual([
      '–',
      '–',
      '–',
      '–',
    ])
    expect(formatDecimal(-0.04, 1)).toBe('0.0')
    expect(formatSigned(0.04, 1)).toBe('0.0')
    expect([formatSigned(4, 1), formatDecimal(-12.34, 1), formatShort(150, 2), formatShort(-0.3, 2)]).toEqual([
      '+4.0',
      '−12.3',
      '150',
      '−0.3',
    ])
  })
})

describe('typed numbers', () => {
  it('takes a value with its unit, refuses in words with the range', () => {
    expect(readTypedNumber(settingFields.distance, '0,3 m')).toEqual({ ok: true, value: 0.3 })
    expect(readTypedNumber(settingFields.distance, '0')).toEqual({
      ok: false,
      message: '0 is out of range. Enter 0.01 to 100 m.',
    })
    expect(readTypedNumber(soundSourceSpecs.level, 'loud')).toEqual({
      ok: false,
      message: '“loud” is not a number. Enter 0 to 160 dB SPL.',
    })
    expect(readTypedNumber(sampleRateField, '44100.5')).toMatchObject({ ok: false })
  })
  it('empty takes an optional value out and is refused for the others', () => {
    expect(readTypedNumber(microphoneSpecs.selfNoise, ' ')).toEqual({ ok: true, value: undefined })
    expect(readTypedNumber(settingFields.gain, '')).toMatchObject({ ok: false })
  })
  it('lists are sorted, each number once', () => {
    expect(readTypedNumbers(sampleRateField, '96000, 44100 48000;44100')).toEqual({
      ok: true,
      values: [44100, 48000, 96000],
    })
    expect(readTypedNumbers(sampleRateField, '44100, fast')).toMatchObject({ ok: false })
  })
})
