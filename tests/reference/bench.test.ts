import { describe, expect, it } from 'vitest'
import { channelBalance } from '#core/bench/channel-balance'
import { dynamicRange } from '#core/bench/dynamic-range'
import { equivalentInputNoise } from '#core/bench/equivalent-input-noise'
import { gainMarks } from '#core/bench/gain-marks'
import { idleNoise } from '#core/bench/idle-noise'
import { inputFullScale } from '#core/bench/input-full-scale'
import { microphoneLevel } from '#core/bench/microphone-level'
import { outputFullScale } from '#core/bench/output-full-scale'
import type { Procedure } from '#core/bench/procedure'
import { procedures } from '#core/bench/procedures'
import { roundTrip } from '#core/bench/round-trip'
import { simulatedFor } from '#core/simulated/simulated-interface'
import { demoSession } from '#demo/index'
import { benchFor, kept, tried } from '../support/bench'

const near = (actual: number | undefined, expected: number | null, tolerance: number, what = '') =>
  expect(
    Math.abs((actual ?? Number.NaN) - (expected ?? Number.NaN)),
    `${what} ${actual} against ${expected}`,
  ).toBeLessThanOrEqual(tolerance)
const any = (procedure: unknown) => procedure as Procedure

describe.each([1, 2])('simulated interface %i: what is measured is what it truly does', (seed) => {
  // What was measured before is kept, since each step rests on those before it.
  let session = demoSession()
  const bench = () => benchFor(session)
  const simulated = simulatedFor(bench().unit, bench().input, bench().output, session.system, seed)
  const figures = (procedure: unknown) => {
    const { outcome } = tried(any(procedure), bench(), simulated)
    return outcome
  }

  it('output full scale, 0.05 dB', () => {
    const outcome = figures(outputFullScale)
    near(outcome.figures[0]?.value, simulated.output.fullScale, 0.05)
    session = kept(session, outcome)
  })
  it('input full scale, 0.05 dB', () => {
    const outcome = figures(inputFullScale)
    near(outcome.figures[0]?.value, simulated.input.fullScale, 0.05)
    session = kept(session, outcome)
  })
  it('gain at the knob’s marks, 0.05 dB', () => {
    const outcome = figures(gainMarks)
    const [marks] = outcome.tables
    expect(marks?.rows).toHaveLength(6)
    for (const row of marks?.rows ?? []) near(Number(row[3]), Number(row[4]), 0.05, row.join(' '))
    near(outcome.figures[0]?.value, simulated.input.gainMax, 0.05)
    session = kept(session, outcome)
  })
  it('the same with a staircase that makes up for the gain', () => {
    const { outcome } = tried(any(gainMarks), bench(), simulated, { level: -18, fall: 10 })
    expect(outcome.keep).not.toBeNull()
    expect(outcome.tables[0]?.rows).toHaveLength(6)
    for (const row of outcome.tables[0]?.rows ?? []) near(Number(row[3]), Number(row[4]), 0.05, row.join(' '))
  })
  it('EIN, 0.3 dB; crossover, 1 dB', () => {
    const outcome = figures(equivalentInputNoise)
    near(outcome.figures[0]?.value, simulated.input.ein, 0.3)
    near(outcome.figures[1]?.value, outcome.figures[1]?.truth ?? null, 1)
    session = kept(session, outcome)
    expect(bench().input.measured?.ein?.method).toContain('simulated interface')
  })
  it('dynamic range, 0.3 dB; THD+N, 0.5 dB', () => {
    const outcome = figures(dynamicRange)
    expect(outcome.figures).toHaveLength(3)
    near(outcome.figures[0]?.value, outcome.figures[0]?.truth ?? null, 0.3)
    for (const figure of outcome.figures.slice(1)) near(figure.value, figure.truth, 0.5, figure.name)
    session = kept(session, outcome)
  })
  it('idle noise; each line of the hum, 0.5 dB', () => {
    const { outcome, rows } = tried(any(idleNoise), bench(), simulated)
    near(outcome.figures[1]?.value, outcome.figures[1]?.truth ?? null, 0.3)
    const { hum } = rows[0]?.found as { hum: { mains: number; lines: { order: number; level: number }[] } }
    expect(hum.mains).toBe(50)
    const gain = bench().voice?.gain ?? 0
    const { gainMax } = bench().input.measured ?? {}
    expect(gainMax?.value).toBeDefined()
    const fullScale = simulated.input.fullScale - (gain * simulated.input.gainMax) / (gainMax?.value ?? 60)
    near(hum.lines[0]?.level, (simulated.input.hum?.level ?? 0) - fullScale, 0.5)
    expect(hum.lines.map((line) => line.order)).toEqual(expect.arrayContaining([1, 3]))
  })
  it('balance, 0.05 dB, and polarity', () => {
    const { outcome } = tried(any(channelBalance), bench(), simulated)
    near(outcome.figures[0]?.value, simulated.imbalance, 0.05)
    expect(outcome.remarks.some((remark) => remark.severity === 'stop')).toBe(simulated.secondInverts)
  })
  it('round trip, 0.02 frames', () => {
    const { outcome } = tried(any(roundTrip), bench(), simulated)
    for (const figure of outcome.figures)
      near(
        (figure.value * session.system.sampleRate) / 1000,
        ((figure.truth ?? 0) * session.system.sampleRate) / 1000,
        0.02,
      )
    session = kept(session, outcome)
  })
  it('what was kept is known again, and nothing else', () => {
    const known = Object.fromEntries(procedures.map((each) => [each.id, each.known(bench())?.words ?? null]))
    expect(known).toMatchObject({ 'idle-noise': null, 'channel-balance': null, 'microphone-level': null })
    const { input, output } = bench()
    expect(known['output-full-scale']).toContain(`${output?.measured?.fullScale?.value.toFixed(2)} dBu ± `)
    expect(known['gain-marks']).toContain(`${input.measured?.gainMax?.value.toFixed(2)} dB`)
    expect(known['equivalent-input-noise']).toContain(`${String(input.measured?.ein?.value).replace('-', '−')} dBu(A)`)
    expect(known['round-trip']).toMatch(/^\d+\.\d\d ms with 256 frames at 48 kHz$/)
  })
  it('sound level at the microphone, 0.2 dB', () => {
    const { outcome } = tried(any(microphoneLevel), bench(), simulated)
    near(outcome.figures[0]?.value, outcome.figures[0]?.truth ?? null, 0.2)
  })
})
