import { describe, expect, it } from 'vitest'
import { nearGain } from '#core/gear/sound-source/chain'
import { coilResonance, pickupResponse, sourceResistance, volumeGain } from '#core/gear/electric-source/pickup'
import { einExcess } from '#core/gear/equivalent-input-noise'
import { diffuseGain, offAxisGain } from '#core/gear/microphone/pattern'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { powerSum } from '#core/numeric/power'
import type { Pattern } from '#core/gear'
import { dbu, hz, ohms } from '#core/units'
import { chain, interfaceWith, line, lineInput, micInput, microphone, preamp, voice } from '../support/chains'

const near = (actual: number | null | undefined, expected: number, digits = 2) =>
  expect(actual ?? Number.NaN).toBeCloseTo(expected, digits)
const strip = (...parameters: Parameters<typeof chain>) => {
  const found = evaluateSession(chain(...parameters)).strips[0]
  if (!found) throw new Error('no strip')
  return found
}
const sum = (...all: (number | null | undefined)[]) => powerSum(all.map((each) => ({ level: each ?? Number.NaN })))
const noiseOf = (found: ReturnType<typeof strip>, stage: string, name: string) =>
  found.noise.find((each) => each.stage === stage && each.name === name)?.level

describe('patterns (handbook acoustics: a² + b²/3, and |a + b cos φ|)', () => {
  it.each<[Pattern, number, number]>([
    ['omni', 0, 1],
    ['wide-cardioid', -2.34, 1.31],
    ['cardioid', -4.77, 1.73],
    ['supercardioid', -5.72, 1.93],
    ['hypercardioid', -6.02, 2],
    ['figure-8', -4.77, 1.73],
  ])('%s: %f dB of a diffuse room, distance factor %f', (pattern, gain, factor) => {
    near(diffuseGain(pattern), gain)
    near(10 ** (-diffuseGain(pattern) / 20), factor, 1)
  })
  it('a cardioid: −6.02 dB at 90°, next to nothing at 180°', () => {
    near(offAxisGain('cardioid', 90), -6.02)
    expect(offAxisGain('cardioid', 180)).toBe(-40)
    near(offAxisGain('omni', 90), 0)
  })
  it('in a session: the room is 4.77 dB quieter in a cardioid, and the voice stays', () => {
    const of = (more: object) =>
      strip(
        [
          { gear: voice(), settings: { distance: 0.3 } },
          { gear: microphone({}, more) },
          { gear: interfaceWith(micInput()), port: 'in1', settings: { gain: 40 } },
        ],
        { version: 2, room: { ambient: 40 } },
      )
    const [unknown, cardioid] = [of({}), of({ pattern: 'cardioid' })]
    near((noiseOf(cardioid, 's0', 'room') ?? 0) - (noiseOf(unknown, 's0', 'room') ?? 0), -4.77)
    near((cardioid.points[2]?.average ?? 0) - (unknown.points[2]?.average ?? 0), 0)
  })
})

describe('an incoherent disc against a point (room acoustics, from memory)', () => {
  it.each([
    [0.5, 11.64],
    [0.05, 19.51],
  ])('r %f m, 0.1 m against 1 m: %f dB', (radius, gain) => near(nearGain(1, 0.1, 2 * radius), gain))
  it('without a size: the inverse-distance law, 20 dB', () => near(nearGain(1, 0.1, undefined), 20))
})

describe('coils (Zs = R + jωL)', () => {
  it.each([
    [20_000, 100, -2.6],
    [20_000, 5000, -16.2],
  ])('7 kΩ and 4 H into %i Ω at %i Hz: %f dB', (load, frequency, loss) =>
    near(pickupResponse({ resistance: 7000, inductance: 4, load, picofarads: 0 }, hz(frequency)), loss, 1),
  )
  it.each([
    [100, -0.06],
    [5000, -0.13],
  ])('into 1 MΩ at %i Hz: %f dB', (frequency, loss) =>
    near(pickupResponse({ resistance: 7000, inductance: 4, load: 1e6, picofarads: 0 }, hz(frequency)), loss),
  )
  it('4 H and 500 pF: 3.56 kHz; with 2 nF of a 20 m cable 1.78', () => {
    near(coilResonance(4, 500) / 1000, 3.56)
    near(coilResonance(4, 2000) / 1000, 1.78)
  })
  it.each([
    [2000, -16.8],
    [1500, -13.9],
    [500, 0],
  ])('7 kΩ, 4 H into 1 MΩ with a cable of %i pF at 5 kHz: %d dB (network theory)', (picofarads, level) =>
    near(pickupResponse({ resistance: 7000, inductance: 4, load: 1e6, picofarads }, hz(5000)), level, 1),
  )
  it('8 kΩ behind a pot of 250 kΩ, half down: −6.29 dB, 64.4 kΩ, 17.4 dB more into 10 kΩ', () => {
    const half = { resistance: 8000, pot: { resistance: 250_000, at: 0.5 } }
    near(volumeGain(half), -6.29)
    near(sourceResistance(half) / 1000, 64.4, 1)
    near(-20 * Math.log10(1 + sourceResistance(half) / 10_000), -17.4, 1)
    // The circuit as a whole says the same: its response at 0 Hz is both losses.
    near(pickupResponse({ ...half, inductance: 0, load: 10_000, picofarads: 0 }, hz(1e-6)), -6.294 - 17.436)
  })
})

describe('EIN says its resistor', () => {
  it('−131 dBu(A) measured shorted: −128.86 with 150 Ω in', () => {
    const excess = einExcess({ ein: dbu(-131), einWeighting: 'A', einSource: ohms(0) })
    near(excess, -131)
    near(sum(excess, -132.97), -128.86)
  })
  it('an unweighted EIN is compared with the unweighted resistor: −128.92 dBu is 2.05 dB of it', () => {
    // Thermal noise of 150 Ω over 20 kHz: −130.92 dBu; A-weighted −132.97.
    near(einExcess({ ein: dbu(-130.92 + 3.0103), einWeighting: 'Z' }), -132.97)
  })
})

describe('resistance makes noise wherever it stands', () => {
  /** Noise at the input: all that comes through the input's terminals, and its preamp's excess. */
  const intoPreamp = (ein: number) => {
    const found = strip(
      [
        { gear: line({ noise: undefined, impedance: 0 }) },
        { gear: { kind: 'pad', specs: { loss: 20, inputImpedance: 10_000, outputImpedance: 150 } } },
        { gear: interfaceWith(micInput({ ein, impedance: undefined })), port: 'in1', settings: { gain: 0 } },
      ],
      { version: 2 },
    )
    const [pad, own] = [noiseOf(found, 's1', 'thermal'), noiseOf(found, 's2', 'preamp')]
    // Full scale at 0 dB is +15 dBu: what is read in dBFS is 15 dB lower than at the terminals.
    return (sum(pad, own) ?? Number.NaN) + 15
  }
  it('a 150 Ω pad into EIN −127 gives −127.00 dBu(A), not −128.27', () => near(intoPreamp(-127), -127))
  it('into EIN −131: −131.00, not −135.38', () => near(intoPreamp(-131), -131))
  it('a passive pad behind a moving coil counts the thermal noise once', () => {
    const found = strip(
      [
        { gear: voice(), settings: { distance: 0.3 } },
        { gear: microphone({ impedance: 200 }) },
        { gear: { kind: 'pad', specs: { loss: 20, inputImpedance: 1000, outputImpedance: 150 } } },
        { gear: interfaceWith(micInput({ impedance: undefined })), port: 'in1', settings: { gain: 0 } },
      ],
      { version: 2 },
    )
    const both = sum(noiseOf(found, 's1', 'thermal'), noiseOf(found, 's2', 'thermal'))
    near((both ?? Number.NaN) + 15, -132.97)
  })
})

describe('one leg grounded', () => {
  const at = (more: object, source = line({}, more)) =>
    strip(
      [
        { gear: source },
        {
          gear: interfaceWith(lineInput({ impedance: undefined }, { plug: { connector: 'jack', balance: 'one-leg' } })),
          port: 'in1',
        },
      ],
      { version: 2 },
    ).points[1]?.average ?? Number.NaN
  it('two driven legs lose 6.02 dB; a floating output loses nothing', () => {
    const driven = at({ plugs: { out: { connector: 'jack', balance: 'balanced' } } })
    near(driven, -18 - 6.02)
    near(at({ plugs: { out: { connector: 'jack', balance: 'floating' } } }), -18)
    near(at({ plugs: { out: { connector: 'jack', balance: 'impedance-balanced' } } }), -18)
  })
})

describe('digital devices have no impedances', () => {
  const plugin = { kind: 'processor', domain: 'digital', blocks: [{ type: 'limiter', ceiling: -1 }], specs: {} }
  const session = (version: number, specs: object) =>
    strip(
      [
        { gear: line({ impedance: 0 }) },
        { gear: interfaceWith(lineInput({ impedance: undefined })), port: 'in1' },
        { gear: { ...plugin, specs: { ...plugin.specs, ...specs } } },
        { gear: { ...plugin, specs: { ...plugin.specs, ...specs } } },
      ],
      { version },
    )
  it('two plug-ins that once were given 600 Ω lose nothing', () => {
    near(session(1, { inputImpedance: 600, outputImpedance: 600 }).points[3]?.average, -18)
  })
  it('and a file of version 2 that gives them is refused, by name', () => {
    expect(() => session(2, { inputImpedance: 600 })).toThrow(/inputImpedance/)
  })
})

it('a pickup of 0 Ω gives figures', () => {
  const found = strip(
    [
      { gear: line({ impedance: 0, noise: undefined }, { output: 'passive-pickup' }) },
      { gear: interfaceWith(lineInput()), port: 'in1' },
    ],
    { version: 2 },
  )
  near(found.points[1]?.average, -18)
  expect(found.noise.every((each) => Number.isFinite(each.level))).toBe(true)
})

describe('ceilings at their own terminals', () => {
  const limiter = (specs: object = {}) => ({
    kind: 'processor',
    domain: 'analogue',
    blocks: [{ type: 'limiter', ceiling: 0 }],
    specs: { maxInput: 20, maxOutput: 24, ...specs },
  })
  const through = (level: number, specs: object = {}) =>
    strip(
      [
        { gear: line({ level, maxOutput: 40, noise: -100 }) },
        { gear: limiter(specs) },
        { gear: interfaceWith(lineInput()), port: 'in1' },
      ],
      { version: 2 },
    )
  it('a limiter at work is no place of least headroom; what it takes off is on its point', () => {
    // A sine's peak stands for its level: a crest factor of 12 dB reads 3.01 less above the average.
    const found = through(4, { maxInput: undefined, maxOutput: undefined })
    expect(found.tightest?.stage).not.toBe('s1')
    expect(found.points[1]?.reduction).toEqual({
      average: expect.closeTo(4, 6),
      peak: expect.closeTo(16 - 3.0103, 4),
      surge: expect.closeTo(19 - 3.0103, 4),
    })
    expect(found.points[1]?.clipped).toBe(false)
  })
  it('its input is overdriven by what comes in, whatever goes out: 6 dB', () => {
    const found = through(14 + 3.0103) // peak +26 into a maximum of +20
    near(found.points[1]?.headroom, -6)
    expect(found.points[1]?.clipped).toBe(true)
    const overdriven = found.findings.find((each) => each.code === 'overdriven' && each.stage === 's1')
    expect(overdriven?.message).toContain('6.0 dB')
  })
  it('the action turns down something that stands before it', () => {
    const found = strip(
      [
        { gear: line({ level: -20, noise: -100, maxOutput: 40 }) },
        { gear: preamp({ maxOutput: 40 }), settings: { gain: 36 } },
        { gear: limiter() },
        { gear: interfaceWith(lineInput({ fullScale: 40 })), port: 'in1' },
      ],
      { version: 2 },
    )
    const overdriven = found.findings.find((each) => each.code === 'overdriven' && each.stage === 's2')
    expect(overdriven?.message).toContain('4.6 dB')
    expect(overdriven?.changes?.[0]).toMatchObject({ stage: 's1', setting: 'gain' })
  })
})
