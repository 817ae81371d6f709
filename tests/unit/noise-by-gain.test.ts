import { describe, expect, it } from 'vitest'
import { crossoverOf, inputNoiseAt, noiseByGain } from '#core/bench/noise-by-gain'
import { power, powerDifference } from '#core/numeric/power'

const [FULL_SCALE, CONVERTER] = [15, -110]
const sum = (...levels: number[]) => 10 * Math.log10(levels.reduce((all, level) => all + power(level), 0))
/** What a preamp of that EIN before that converter reads at a gain. */
const reading = (gain: number, ein: number) => ({
  gain,
  fullScale: FULL_SCALE - gain,
  level: sum(ein - (FULL_SCALE - gain), CONVERTER),
})

describe('noise by gain', () => {
  it('an EIN that is the same at every gain, and the converter: the crossover of docs/formulas.md, 33.3 dB', () => {
    const found = noiseByGain([60, 40, 20, 0].map((gain) => reading(gain, -127)))
    expect(found).toMatchObject({ sure: true })
    expect(found?.converter).toBeCloseTo(-110, 6)
    for (const gain of [60, 45, 20]) expect(found && inputNoiseAt(found, gain)).toBeCloseTo(-127, 4)
    // By hand: FS_min − DR − excess = 15 − 110 + 128.27, with −132.97 dBu(A) of 150 Ω (Johnson and Nyquist) in the EIN.
    expect(found && crossoverOf(found, FULL_SCALE, 0, -132.97)).toBeCloseTo(33.3, 1)
  })
  it('an EIN that is 3 dB worse at the lowest gain', () => {
    const ein = (gain: number) => -127 + (3 * (60 - gain)) / 60
    const found = noiseByGain([60, 40, 20, 0].map((gain) => reading(gain, ein(gain))))
    expect(Math.abs((found?.converter ?? 0) + 110)).toBeLessThan(0.1)
    for (const gain of [60, 50, 40])
      expect(Math.abs((found ? inputNoiseAt(found, gain) : 0) - ein(gain))).toBeLessThan(0.1)
    // The crossover solves excess(G) = FS_G + converter; here by halving.
    let [low, high] = [0, 60]
    for (let i = 0; i < 50; i++) {
      const middle = (low + high) / 2
      if ((powerDifference(ein(middle), -132.97) as number) - (FULL_SCALE - middle) > CONVERTER) high = middle
      else low = middle
    }
    expect(Math.abs((found ? (crossoverOf(found, FULL_SCALE, 0, -132.97) as number) : 0) - low)).toBeLessThan(0.2)
  })
  it('two gains that lie close together make no line', () => {
    expect(
      inputNoiseAt(
        {
          converter: -110,
          sure: true,
          input: [
            { gain: 59.9, level: -126 },
            { gain: 60, level: -127 },
          ],
        },
        30,
      ),
    ).toBe(-126)
  })
  it('without a gain at which the converter leads it is not sure of it', () => {
    expect(noiseByGain([reading(60, -127), reading(50, -126.5)])).toMatchObject({ sure: false })
  })
  it.each([[[60]], [[60, 57]]])('gains of %o tell nothing apart', (gains) =>
    expect(noiseByGain(gains.map((gain) => reading(gain, -127)))).toBeNull(),
  )
})
