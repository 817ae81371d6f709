import { describe, expect, it } from 'vitest'
import { templates, templateSession } from '#demo/templates'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { StripEvaluation } from '#core/evaluation/evaluate-session'

/**
 * Every ready-made chain, worked out by hand from the definitions: levels re √0.6 V and 20 µPa, the voltage divider at
 * every joint, gains one after the other, noises added in power. The arithmetic stands here; only the inputs are the
 * templates' printed figures.
 */
const lg = Math.log10
const load = (source: number, input: number) => -20 * lg(1 + source / input)
/** Microphone, open circuit: SPL − 93.979 + 20 lg(S/1000) + 2.2185 dBu. */
const mic = (sensitivity: number) => -93.9794 + 20 * lg(sensitivity / 1000) + 2.21849
const at = (level: number, stated: number, distance: number) => level + 20 * lg(stated / distance)
const peak = (average: number, crest: number) => average + crest - 3.0103
const sum = (...levels: number[]) => 10 * lg(levels.reduce((total, level) => total + 10 ** (level / 10), 0))
/** Thermal noise: 150 Ω −130.92 dBu, ×10 lg of the resistance, A-weighted −2.05 dB. */
const thermalA = (ohms: number) => -130.92 + 10 * lg(ohms / 150) - 2.05
const excess = (ein: number) => 10 * lg(10 ** (ein / 10) - 10 ** (thermalA(150) / 10))
/** 24 bits with TPDF dither, A-weighted: −(6.02·24 + 1.76) + 4.77 − 2.05. */
const WORD24 = -143.53

const evaluated = (id: string): Record<string, StripEvaluation> => {
  const template = templates.find((each) => each.id === id)
  if (!template) throw new Error(`no template ${id}`)
  return Object.fromEntries(evaluateSession(templateSession(template)).strips.map((strip) => [strip.id, strip]))
}
/** The time in air at 20 °C, ms. */
const AIR = (metres: number) => (1000 * metres) / 343.2
const near = (actual: number | null | undefined, expected: number, tolerance = 0.05) =>
  expect(Math.abs((actual ?? Number.NaN) - expected), `${actual} against ${expected}`).toBeLessThanOrEqual(tolerance)
const point = (strip: StripEvaluation | undefined, i: number) => strip?.points.at(i)
const codes = (strip: StripEvaluation | undefined) => strip?.findings.map((each) => each.code) ?? []

describe('the thirteen ready-made chains', () => {
  it('are thirteen', () => expect(templates).toHaveLength(13))

  it('1 condenser → microphone input', () => {
    const { voice } = evaluated('condenser')
    const spl = at(68, 1, 0.2)
    const wire = spl + mic(15) + load(200, 2400)
    const full = 15 - 32
    near(point(voice, 1)?.average, wire)
    near(point(voice, 2)?.average, wire - full)
    near(point(voice, 2)?.peak, peak(wire - full, 14))
    const toFile = mic(15) + load(200, 2400) - full
    near(point(voice, 2)?.noise, sum(28 + toFile, 14 + toFile, excess(-127) - full, -110, WORD24))
  })

  it('2 quiet moving coil → preamp, compressor, de-esser, expander, output gain → line input', () => {
    const { voice } = evaluated('channel-strip')
    const wire = at(68, 1, 0.1) + mic(1.12) + load(320, 1500)
    const preamp = wire + 48
    near(point(voice, 2)?.average, preamp)
    // The dynamics see the preamp's 50 Ω into 20 kΩ; the average lies under the threshold of −10, the peak above it.
    const into = load(50, 20_000)
    const squeezed = (x: number) => (x > -10 ? -10 + (x + 10) / 3 : x) - 0.5
    near(point(voice, 3)?.average, squeezed(preamp + into) + 4)
    near(point(voice, 3)?.peak, squeezed(peak(preamp, 14) + into) + 4)
    near(point(voice, 4)?.average, squeezed(preamp + into) + 4 + load(100, 20_000) - 18)
    // The floor, far below −50, is expanded by 2 : 1, but by 12 dB at the most.
    const floor = sum(28 + mic(1.12) + load(320, 1500), thermalA(320) + load(320, 1500), excess(-127)) + 48
    const before = sum(floor, -94) + into
    near(point(voice, 3)?.noise, sum(before - 0.5 - 12 + 4, -88))
    expect(codes(voice)).toContain('loading') // 1500 / 320 = 4.7
  })

  it('3 the same → booster → microphone input', () => {
    const { voice } = evaluated('booster')
    const wire = at(68, 1, 0.1) + mic(1.12) + load(320, 18_000)
    near(point(voice, 1)?.average, wire)
    near(point(voice, 2)?.average, wire + 24)
    near(point(voice, 3)?.average, wire + 24 + load(120, 2400) - (15 - 34))
    near(
      point(voice, 2)?.noise,
      sum(28 + mic(1.12) + load(320, 18_000), thermalA(320) + load(320, 18_000), excess(-129)) + 24,
    )
    expect(codes(voice)).not.toContain('phantom-missing')
  })

  it('4 passive pickup → instrument input, and → line input: what is lost', () => {
    const { guitar, 'guitar-line': line } = evaluated('pickup')
    near(point(guitar, 0)?.average, -20 + load(7000, 1e6))
    near(point(guitar, 1)?.average, -20 + load(7000, 1e6) - (8 - 12))
    near(point(line, 0)?.average, -20 + load(7000, 20_000))
    near(point(line, 1)?.average, -20 + load(7000, 20_000) - (18 - 20))
    near(point(guitar, 0)?.noise, thermalA(7000) + load(7000, 1e6))
    // A line input without an EIN: pickup, converter and word length are all there is.
    near(point(line, 1)?.noise, sum(thermalA(7000) + load(7000, 20_000) + 2, -112, WORD24))
    expect(codes(line)).toContain('loading')
  })

  it('5 stereo keys → line inputs, paired', () => {
    const strips = evaluated('keys')
    const file = -8 + load(600, 20_000) - 18
    for (const id of ['keys-l', 'keys-r']) {
      near(point(strips[id], 1)?.average, file)
      near(point(strips[id], 1)?.noise, sum(-88 + load(600, 20_000) - 18, -112, WORD24))
      near(point(strips[id], 0)?.headroom, 12 - peak(-8, 14))
    }
  })

  it('6 ribbon → preamp → line input', () => {
    const { guitar } = evaluated('ribbon')
    const wire = at(72, 1, 0.4) + mic(1.6) + load(270, 2000)
    near(point(guitar, 2)?.average, wire + 54)
    near(point(guitar, 3)?.average, wire + 54 + load(100, 20_000) - 18)
    const amplified = sum(28 + mic(1.6) + load(270, 2000), thermalA(270) + load(270, 2000), excess(-128)) + 54
    near(point(guitar, 2)?.noise, sum(amplified, -92))
    // Takes 12 dBu at its lowest gain of 10: at 54 dB, 44 dB less.
    near(point(guitar, 2)?.headroom, Math.min(12 - 44 - peak(wire, 16), 24 - peak(wire + 54, 16)))
    expect(codes(guitar).filter((code) => code.startsWith('phantom'))).toEqual([])
  })

  it('7 microphone → desk channel → group → line input', () => {
    const { voice } = evaluated('desk')
    const wire = at(68, 1, 0.2) + mic(15) + load(200, 2200)
    near(point(voice, 2)?.average, wire + 40)
    near(point(voice, 3)?.average, wire + 40)
    near(point(voice, 4)?.average, wire + 40 + load(120, 20_000) - 18)
    near(point(voice, 2)?.headroom, Math.min(20 - 40 - peak(wire, 14), 24 - peak(wire + 40, 14)))
  })

  it('8 desk line output: overdrives the instrument input; a DI box or a pad fixes it', () => {
    const { 'as-it-stands': plain, 'with-di': di, 'with-pad': pad } = evaluated('desk-into-two')
    // One leg of a balanced output: 6.02 dB less, and still over 0 dBFS at +4 dBu.
    near(point(plain, 1)?.peak, peak(4 + load(100, 1e6) - 6.0206 - 4, 12))
    expect(point(plain, 1)?.clipped).toBe(true)
    expect(codes(plain)).toEqual(expect.arrayContaining(['clips', 'line-into-instrument']))
    near(point(di, 2)?.average, 4 + load(100, 140_000) - 6.0206 - 20 * lg(12) + load(150, 1800) - 10)
    near(point(pad, 2)?.average, 4 + load(100, 10_000) - 20 + load(150, 1e6) - 6.0206 - 4)
    expect(codes(di)).not.toContain('clips')
    expect(codes(pad)).not.toContain('clips')
  })

  it('9 preamp → first converter → optical link → second unit: input 15 of the recorder', () => {
    const { squeezebox } = evaluated('two-units')
    const wire = at(84, 1, 0.8) + mic(15) + load(200, 2000)
    const file = wire + 32 + load(100, 20_000) - 20
    for (const i of [3, 4, 5]) near(point(squeezebox, i)?.average, file)
    expect(squeezebox?.findings.find((each) => each.code === 'word-clock')?.message).toContain('input 15')
    // First unit's 12 frames in, the link's 0.1 ms, then the second's driver, buffers and output.
    const software = squeezebox?.latency.find((each) => each.route === 'software')
    near(software?.milliseconds, (12 + 24 + 128 + 128 + 24 + 20) / 48 + 0.1 + 0.5 + AIR(0.8), 0.005)
  })

  it('10 wireless receiver → desk → line input, with the link’s own latency', () => {
    const { guide } = evaluated('wireless')
    const received = at(68, 1, 0.08) + mic(2) + load(250, 5000) + 6
    near(point(guide, 2)?.average, received)
    near(point(guide, 3)?.average, received + load(150, 2200) + 32)
    near(point(guide, 4)?.average, received + load(150, 2200) + 32 + load(150, 20_000) - 18)
    near(point(guide, 2)?.noise, sum(sum(28 + mic(2) + load(250, 5000), thermalA(250) + load(250, 5000)) + 6, 0 - 108))
    near(guide?.latency.find((each) => each.route === 'direct')?.milliseconds, 3.2 + 40 / 48 + AIR(0.08), 0.005)
  })

  it('11 USB microphone: its gain, then the computer’s slider', () => {
    const { voice } = evaluated('usb')
    const file = at(68, 1, 0.2) + mic(20) + load(100, 5000) - (8 - 22)
    near(point(voice, 2)?.average, file)
    near(point(voice, 3)?.average, file - 4)
    // The slider moves signal and noise alike.
    near(point(voice, 3)?.snr, point(voice, 2)?.snr ?? 0, 0.001)
    expect(codes(voice)).toContain('gain-behind-converter')
  })

  it('12 deck: five gains', () => {
    const { deck } = evaluated('five-gains')
    const channel = -6 + load(300, 15_000)
    near(point(deck, 2)?.average, channel)
    near(point(deck, 3)?.average, channel)
    near(point(deck, 4)?.average, channel + load(100, 20_000) - 18)
    near(point(deck, 2)?.noise, sum(sum(-90 + load(300, 15_000), excess(-100)), -86))
  })

  it('13 plug-ins and a fader to a file: floating point has no ceiling, fixed point 0 dBFS', () => {
    const { bell } = evaluated('host')
    // Average −24 lies at the compressor's threshold, the peak of −13.01 is squeezed 4 : 1; then +6, +1.5, +6 into −2.
    const squeezed = -24 + (peak(-24, 14) + 24) / 4
    near(point(bell, 1)?.peak, squeezed + 6)
    expect(point(bell, 1)?.ceiling).toBeNull()
    near(point(bell, 2)?.peak, squeezed + 7.5)
    expect(point(bell, 2)?.ceiling).toBe(0)
    near(point(bell, 3)?.peak, Math.min(-2, squeezed + 13.5))
    expect(point(bell, 4)?.ceiling).toBe(0) // a 24-bit file
    near(point(bell, 4)?.noise, sum(-78 + 13.5, WORD24))
  })
})
