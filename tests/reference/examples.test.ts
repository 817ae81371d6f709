import { describe, expect, it } from 'vitest'
import type { Point } from '#core/chain/cascade'
import { sensitivityGain } from '#core/gear/microphone/chain'
import { noiseCrossover } from '#core/gear/interface/input-gain'
import { loadingGain } from '#core/gear/loading'
import { wordLengthNoise } from '#core/chain/noise'
import { EIN_THERMAL, einExcess, einWeighted } from '#core/gear/equivalent-input-noise'
import { stagesOf } from '#core/resolved/resolve-session'
import type { StripEvaluation } from '#core/evaluation/evaluate-session'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { gainTrade } from '#core/evaluation/gain-trade'
import { powerSum } from '#core/numeric/power'
import { dbu, millivoltsPerPascal, ohms } from '#core/units'
import { example1, example2, valid } from '../support/sessions'

/** The tolerance of the reference figures. */
const within = (actual: number | null | undefined, expected: number, tolerance = 0.05) =>
  expect(Math.abs((actual ?? Number.NaN) - expected), `${actual} against ${expected}`).toBeLessThanOrEqual(tolerance)

const only = (evaluated: { strips: StripEvaluation[] }) => evaluated.strips[0] as StripEvaluation
const at = (evaluated: StripEvaluation, i: number) => evaluated.points[i] as Point
const level = (evaluated: StripEvaluation, name: string) => evaluated.noise.find((each) => each.name === name)?.level
const share = (evaluated: StripEvaluation, name: string) => evaluated.noise.find((each) => each.name === name)?.share

describe('parts of the chain (handbook arithmetic)', () => {
  it('10 mV/Pa at 94 dB SPL: −37.8 dBu', () => {
    within(93.979 + sensitivityGain(millivoltsPerPascal(10)), -37.78, 0.005)
  })
  it.each([
    [150, 1500, -0.83],
    [7000, 1e6, -0.06],
    [7000, 10_000, -4.61],
  ])('%i Ω into %i Ω: %d dB', (from, into, loss) => {
    within(loadingGain(ohms(from), ohms(into)), loss, 0.005)
  })
  it('EIN −127 dBu(A) over 150 Ω (−132.97): excess −128.27 dBu(A)', () => {
    within(EIN_THERMAL, -132.97, 0.005)
    within(einExcess({ ein: dbu(-127), einWeighting: 'A' }), -128.27, 0.005)
  })
  it('an EIN below its own resistor has no excess; an unweighted one loses 2.05 dB', () => {
    expect(einExcess({ ein: dbu(-133.5), einWeighting: 'A' })).toBeNull()
    within(einWeighted(dbu(-125), 'Z'), -127.05, 0.005)
  })
  it('files with TPDF dither: 16 bits −95.37 dBFS(A), 24 bits −143.53 (6.02 N + 1.76, 4.77, 2.05)', () => {
    within(wordLengthNoise(16), -95.37, 0.01)
    within(wordLengthNoise(24), -143.53, 0.01)
  })
  it('two equal unrelated levels: +3.01 dB', () => {
    within(powerSum([{ level: -60 }, { level: -60 }]), -56.99, 0.005)
  })
})

describe('worked example 1: condenser in a live room', () => {
  const session = valid(example1())
  const strip = only(evaluateSession(session))

  it('at the capsule: 78.46 dB SPL, peak 89.45, headroom 44.55', () => {
    within(at(strip, 0).average, 78.46)
    within(at(strip, 0).peak, 89.45)
    within(at(strip, 0).headroom, 44.55)
    expect(at(strip, 0).ceiling).toBe(134)
  })
  it('at the input: −50.48 dBu', () => within(at(strip, 1).average, -50.48))
  it('recorded: −30.48 dBFS, peak −19.49, headroom 19.49, with the surge 13.49', () => {
    within(at(strip, 2).average, -30.48)
    within(at(strip, 2).peak, -19.49)
    within(at(strip, 2).headroom, 19.49)
    within(-at(strip, 2).surgePeak, 13.49)
  })
  it('noise −80.75 dBFS(A): room −80.93 (95.9 %), microphone −94.93 (3.8 %), preamp −108.27, converter −110, word −143.53', () => {
    within(at(strip, 2).noise, -80.75)
    within(level(strip, 'room'), -80.93)
    within(share(strip, 'room'), 0.959, 0.0005)
    within(level(strip, 'self-noise'), -94.93)
    within(share(strip, 'self-noise'), 0.038, 0.0005)
    within(level(strip, 'preamp'), -108.27)
    within(level(strip, 'converter'), -110)
    within(level(strip, 'word-length'), -143.53)
  })
  it('SNR 50.28 dB, tightest at the input', () => {
    within(at(strip, 2).snr, 50.28)
    expect(strip.tightest?.stage).toBe('narrator-input')
    within(strip.tightest?.headroom, 19.49)
  })
  it('converter and preamp cross at 33.3 dB of gain', () => {
    const stage = stagesOf(session, session.strips[0] as never).at(-1)
    within(
      stage?.kind === 'interface' && stage.excess !== null
        ? noiseCrossover(stage.specs, stage.specs.dynamicRange, stage.excess)
        : null,
      33.3,
    )
  })
  it('10 dB more gain buys next to nothing: the converter’s 0.12 % of the noise, so 0.005 dB', () => {
    const trade = gainTrade(session, 'narrator', 10)
    within(trade?.snr, -10 * Math.log10(1 - 0.00119 * 0.9), 0.002)
    within(trade?.headroom, 10, 1e-6)
  })
})

describe('worked example 2: moving coil, the room left out', () => {
  const strip = only(evaluateSession(valid(example2())))

  it('at the input −59.68 dBu; recorded −22.68 dBFS, peak −11.69', () => {
    within(at(strip, 1).average, -59.68)
    within(at(strip, 2).average, -22.68)
    within(at(strip, 2).peak, -11.69)
  })
  it('thermal −93.98 (34.6 %), preamp −91.27 (64.6 %), converter −110 (0.9 %); noise −89.37, SNR 66.69', () => {
    within(level(strip, 'thermal'), -93.98)
    within(share(strip, 'thermal'), 0.346, 0.001)
    within(level(strip, 'preamp'), -91.27)
    within(share(strip, 'preamp'), 0.646, 0.001)
    within(share(strip, 'converter'), 0.009, 0.0005)
    within(at(strip, 2).noise, -89.37)
    within(at(strip, 2).snr, 66.69)
  })
  it('says that the floor is that of the electronics only', () => {
    expect(strip.findings.map((each) => each.code)).toContain('electronics-only')
    expect(strip.noise.map((each) => each.name)).not.toContain('room')
  })
})
