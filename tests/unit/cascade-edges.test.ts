import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { chain, interfaceWith, line, lineInput, preamp } from '../support/chains'

const points = (...parameters: Parameters<typeof chain>) =>
  evaluateSession(chain(...parameters)).strips[0]?.points ?? []
const near = (actual: number | null | undefined, expected: number) =>
  expect(actual ?? Number.NaN).toBeCloseTo(expected, 4)
const SQUARE = 3.0103
/** Nothing loads anything, and a sine is a sine. */
const source = (specs: object = {}) => line({ impedance: 0, crest: SQUARE, surge: 0, noise: undefined, ...specs })
const box = (specs: object = {}) =>
  preamp({ inputImpedance: undefined, outputImpedance: undefined, outputNoise: undefined, ...specs })
const end = { gear: interfaceWith(lineInput({ impedance: undefined, fullScale: 60 })), port: 'in1' }

describe('what passes a ceiling', () => {
  it('a sine 20 dB over it goes on as a square wave: its average 3.01 dB over the ceiling', () => {
    const [, at, behind] = points([{ gear: source() }, { gear: box({ maxOutput: 20 }), settings: { gain: 40 } }, end])
    near(at?.average, 40)
    near(behind?.average, 20 + SQUARE - 60)
    near(behind?.peak, 20 - 60)
  })
  it('every later point names the first that clipped, not the last', () => {
    const found = points([
      { gear: source() },
      { gear: box({ maxOutput: 20 }), settings: { gain: 40 } },
      { gear: box({ maxOutput: 10 }), settings: { gain: 0 } },
      end,
    ])
    expect(found.map((each) => each.clipped)).toEqual([false, true, true, false])
    expect(found.map((each) => each.carriesClipping?.stage ?? null)).toEqual([null, null, 's1', 's1'])
  })
  it('what an input cuts off goes through the curve behind it: +10 through 0, 4 : 1, is +2.5', () => {
    const compressor = {
      kind: 'processor',
      domain: 'analogue',
      blocks: [{ type: 'compressor', threshold: 0, ratio: 4 }],
      specs: { maxInput: 10 },
    }
    const [, , behind] = points([{ gear: source({ level: 30 }) }, { gear: compressor }, end])
    near(behind?.peak, 2.5 - 60)
  })
})

it('a pad stands before its preamp: it lowers what comes in, not the preamp’s noise', () => {
  const noise = (pad: boolean) =>
    points([{ gear: source({ level: -20 }) }, { gear: box({ pad: 20 }), settings: { gain: 30, pad } }, end])[1]
  near(noise(true)?.average, noise(false)?.average === undefined ? Number.NaN : (noise(false)?.average ?? 0) - 20)
  near(noise(true)?.noise, noise(false)?.noise ?? Number.NaN)
})

describe('a desk channel’s direct output', () => {
  const desk = { kind: 'desk-channel', input: 'line', specs: { gainMin: 0, gainMax: 60, ein: -120, maxOutput: 20 } }
  const at = (settings: object) => points([{ gear: source({ level: -20 }) }, { gear: desk, settings }, end])[1]
  it('taken before the fader it does not follow it; after it, level and noise do', () => {
    near(at({ gain: 10, fader: -20, tap: 'pre' })?.average, -10)
    near(at({ gain: 10, fader: -20, tap: 'post' })?.average, -30)
    near((at({ gain: 10, fader: -20, tap: 'pre' })?.noise ?? 0) - (at({ gain: 10, fader: -20 })?.noise ?? 0), 20)
  })
  it('what clipped before the fader stays clipped, however low the fader stands', () => {
    expect(at({ gain: 50, fader: -60 })?.clipped).toBe(true)
    near(at({ gain: 50, fader: -60 })?.headroom, -10)
  })
})
