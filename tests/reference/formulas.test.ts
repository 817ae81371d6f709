import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { turnsGain } from '#core/gear/di-box/chain'
import { sensitivityGain } from '#core/gear/microphone/chain'
import { nearGain } from '#core/gear/sound-source/chain'
import { fullScaleAt, noiseCrossover } from '#core/gear/interface/input-gain'
import { unbalancedGain } from '#core/chain/joint'
import { cableCorner, loadingGain } from '#core/gear/loading'
import { pickupResponse } from '#core/gear/electric-source/pickup'
import { lowCutLoss } from '#core/chain/low-cut'
import { wordLengthNoise } from '#core/chain/noise'
import { einExcess } from '#core/gear/equivalent-input-noise'
import { diffuseGain, offAxisGain } from '#core/gear/microphone/pattern'
import { sumSignals } from '#core/chain/sum'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { Formula, FormulaId } from '#core/formula'
import { formulaGroups } from '#core/formula'
import { modelRoundTrip, sharedTime } from '#core/latency/round-trip'
import { potentialAcousticGain } from '#core/monitoring/acoustic-gain'
import { combOf } from '#core/monitoring/comb'
import { nioshHours } from '#core/monitoring/exposure'
import { headphoneLevel } from '#core/monitoring/headphone-level'
import { powerSum } from '#core/numeric/power'
import type { AudioInterface, Pattern } from '#core/gear'
import { conventions, standardUncertainty } from '#core/model'
import { chanceOver } from '#core/uncertainty/chance'
import { uncertaintyOf } from '#core/uncertainty/uncertainty'
import { windowOf } from '#core/uncertainty/window'
import {
  WHITE_UNDER_A,
  airTime,
  celsius,
  db,
  dbu,
  dbuToVolts,
  dbv,
  dbvToDbu,
  dbfs,
  frames,
  framesToMilliseconds,
  hz,
  metres,
  millivoltsPerPascal,
  noiseUnderA,
  ohms,
  pascals,
  pascalsToDbSpl,
  peakOf,
  speedOfSound,
  thermalNoise,
  thermalNoiseA,
} from '#core/units'
import { chain, interfaceWith, lineInput, usbMicrophone, voice } from '../support/chains'
import { figures } from '../support/formula-figures'
import { example1, valid, withAt } from '../support/sessions'

const session = valid(example1())
const strip = evaluateSession(session).strips[0]
const unit = session.gear.find(({ kind }) => kind === 'interface') as AudioInterface
const end = strip?.points.at(-1)
const noise = (name: string) => strip?.noise.find((each) => each.name === name)?.level ?? NaN

/** Signals without a sound in common, by average and peak. */
const met = (...signals: [number, number][]) => meeting(signals, (i) => `s${i}`)
/** One sound that arrives on two ways. */
const metTwice = (level: number) =>
  meeting(
    [
      [level, level + 8],
      [level, level + 8],
    ],
    () => 'one',
  )
const meeting = (signals: [number, number][], sound: (i: number) => string) =>
  sumSignals(
    { id: 'bus' },
    signals.map(([average, peak], i) => ({
      strip: `s${i}`,
      unit: 'dBFS' as const,
      average: dbfs(average),
      peak: dbfs(peak),
      surgePeak: dbfs(peak),
      shift: 0,
      noisePower: 0,
      noise: [],
      bound: dbfs(peak),
      origins: [{ source: sound(i), average: 0, peak: 0, surge: 0 }],
      openGain: 0,
      microphones: [],
      clipped: null,
    })),
  ).sum

const averageOf = (gear: Record<string, unknown>, level: number) =>
  evaluateSession(
    chain([
      { gear: voice({ level }), settings: { distance: 1 } },
      { gear, settings: { gain: 20 } },
    ]),
  ).strips[0]?.points.at(-1)?.average ?? NaN

/** What the product gives for every formula whose check is figures. */
const given: Partial<Record<FormulaId, () => number[]>> = {
  'levels-db-spl': () => [pascalsToDbSpl(pascals(1))],
  'levels-dbu': () => [dbuToVolts(dbu(4))],
  'levels-dbv': () => [dbvToDbu(dbv(0))],
  'levels-peak-level': () => [peakOf(dbfs(-20), db(12))],
  'levels-surge-peak': () => [end?.surgePeak ?? NaN],
  'levels-headroom': () => [end?.headroom ?? NaN, end?.surgeHeadroom ?? NaN],
  'levels-snr': () => [end?.snr ?? NaN],
  'levels-inverse-distance': () => [nearGain(1, 0.25, undefined)],
  'levels-near-a-source-of-some-size': () => [nearGain(1, 0.1, 1), nearGain(1, 0.1, 0.1)],
  'levels-unrelated-sum': () => [powerSum([{ level: 0 }, { level: 0 }]) ?? NaN],
  'wire-microphone-digital': () => [averageOf(usbMicrophone(), 74)],
  'wire-microphone-open-circuit': () => [94 + sensitivityGain(millivoltsPerPascal(10))],
  'wire-pattern-of-a-diffuse-room': () =>
    (['cardioid', 'supercardioid', 'hypercardioid', 'figure-8', 'wide-cardioid'] satisfies Pattern[]).map(diffuseGain),
  'wire-off-its-axis': () => [offAxisGain('cardioid', 90)],
  'wire-its-ceiling': () => [strip?.points[0]?.headroom ?? NaN],
  'wire-loading': () => [loadingGain(ohms(150), ohms(1500))],
  'wire-a-coil': () =>
    [100, 5000].map((f) => pickupResponse({ resistance: 7000, inductance: 4, load: 20_000, picofarads: 0 }, hz(f))),
  'wire-a-passive-volume-knob': () => {
    const level = (volumeLoss: number) =>
      evaluateSession(
        chain([
          {
            gear: {
              kind: 'electric-source',
              output: 'passive-pickup',
              specs: { level: -20, crest: 12, impedance: 7000, volumeLoss },
            },
          },
          { gear: interfaceWith(lineInput()), port: 'in1' },
        ]),
      ).strips[0]?.points[0]?.average ?? NaN
    return [level(6) - level(0)]
  },
  'wire-di-box-turns-ratio-n': () => [turnsGain(12)],
  'wire-an-unbalanced-input-at-a-balanced-output': () =>
    (['balanced', 'impedance-balanced'] as const).map((balance) =>
      unbalancedGain(
        { kind: 'preamp', gear: { plugs: { out: { balance } } } } as never,
        { kind: 'preamp', gear: { plugs: { in: { balance: 'one-leg' } } } } as never,
      ),
    ),
  'wire-a-cable-s-corner': () => [cableCorner(ohms(250_000), 600)],
  'wire-low-cut': () => [lowCutLoss(80, 12, 40)],
  'noise-white-noise-under-a': () => [WHITE_UNDER_A, noiseUnderA((f) => 1 / f)],
  'noise-thermal': () => [thermalNoise(ohms(150)), thermalNoiseA(ohms(150))],
  'noise-ein-excess': () => [
    einExcess({ ein: dbu(-127), einWeighting: 'A' }) ?? NaN,
    powerSum([
      { level: einExcess({ ein: dbu(-131), einWeighting: 'A', einSource: ohms(0) }) ?? NaN },
      { level: thermalNoiseA(ohms(150)) },
    ]) ?? NaN,
  ],
  'noise-preamp-at-the-recorder': () => [noise('preamp')],
  'noise-converter': () => [noise('converter')],
  'noise-word-length-tpdf': () => [wordLengthNoise(16) ?? NaN, wordLengthNoise(24) ?? NaN],
  'noise-crossover-gain': () => [noiseCrossover({ fullScale: 15, gainMin: 0 }, 110, -128.27)],
  'planner-0-dbfs-as-set': () => [fullScaleAt({ fullScale: 15, gainMin: 0 }, 35)],
  'planner-aim-of-a-convention': () => [conventions['peaks-18-12'].aim],
  'planner-aim-by-risk-p': () => {
    const risky = valid(withAt(example1(), ['target'], { risk: 1 }))
    const [only] = risky.strips
    return only ? [windowOf(risky, only, []).aim] : []
  },
  'latency-buffer': () => [framesToMilliseconds(frames(128), hz(48_000))],
  'latency-software': () => [modelRoundTrip(unit, session.system, 48_000, 128)],
  'latency-direct': () => [strip?.latency.find(({ route }) => route === 'direct')?.milliseconds ?? NaN],
  'latency-air': () => [airTime(metres(1), celsius(20))],
  'latency-speed-of-sound': () => [speedOfSound(celsius(20))],
  'latency-link-loudspeaker': () => [airTime(metres(3.43), celsius(20))],
  'latency-shared-driver': () => [sharedTime({ driver: 'shared', sharedPeriod: 10 as never })],
  'monitoring-comb-first-notch': () => [1, 7].map((delay) => combOf(delay, -6).firstNotch),
  'monitoring-ripple': () => [-6, -12, -20].map((difference) => combOf(1, difference).ripple),
  'monitoring-headphones': () => [headphoneLevel(dbu(10), ohms(10), { sensitivity: 98, impedance: 32 }).level],
  'monitoring-hours': () => [94, 100].map(nioshHours),
  'monitoring-potential-acoustic-gain': () => [
    potentialAcousticGain({
      sourceToListener: 6,
      microphoneToLoudspeaker: 4,
      loudspeakerToListener: 7,
      sourceToMicrophone: 0.3,
      openMicrophones: 1,
    }),
  ],
  'busses-average-of-a-sum': () => [met([0, 8], [0, 8]).average, metTwice(0).average],
  'busses-certain-bound': () => [met([-20, -9], [-20, -9]).bound],
  'busses-likely-peak': () => [met([-20, -9], [-20, -9]).likely, met([-20, -9], [-26, -12], [-30, -20]).likely],
  'uncertainty-standard': () =>
    (['half-range', 'sd', 'ci95'] as const).map((is, i) =>
      standardUncertainty({ value: [0.4, 0.24, 1.96][i] as number, is }),
    ),
  'uncertainty-combined': () => [uncertaintyOf(session).strips[0]?.points.at(-1)?.peak.u ?? NaN],
  'uncertainty-chance': () => [100 * chanceOver(13.49, 3.79)],
  'uncertainty-reading': () => {
    const u2 = (uncertaintyOf(session).strips[0]?.points.at(-1)?.peak.u ?? 0) ** 2
    const read = valid({
      ...example1(),
      version: 2,
      soundcheck: { readings: [{ id: 'r', strip: 'narrator', stage: 'narrator-input', value: -19, spread: 0.5 }] },
    })
    expect(u2).toBeGreaterThan(11)
    return [uncertaintyOf(read).strips[0]?.points.at(-1)?.peak.u ?? NaN]
  },
}

const all: Formula[] = formulaGroups.flatMap(({ formulas }) => [...formulas])

/** Titles of the tests of a file: a test that is only spoken of checks nothing. */
const titlesIn = (source: string) =>
  [...source.matchAll(/(?:\b(?:it|describe)|\))\(\s*(['"`])(.*?)\1,/g)].map(([, , title]) => title ?? '')

describe('every formula is checked', () => {
  it('ids are told once', () => expect(new Set(all.map(({ id }) => id)).size).toBe(all.length))
  it.each(all.map((each) => [each.id, each] as const))('%s', (id, { check, source, statement }) => {
    expect(source.length).toBeGreaterThan(2)
    expect(statement.length).toBeGreaterThan(2)
    if ('gives' in check) {
      const found = (given[id as FormulaId] ?? figures[id as FormulaId])?.()
      expect(found, 'figures to check and nothing that gives them').toBeDefined()
      expect(found?.length).toBe(check.gives.length)
      check.gives.forEach((wanted, i) =>
        expect(Math.abs((found?.[i] as number) - wanted)).toBeLessThanOrEqual(check.within),
      )
    } else {
      const titles = titlesIn(readFileSync(join(import.meta.dirname, check.test), 'utf8'))
      expect(titles.filter((title) => title.includes(check.named))).not.toEqual([])
    }
  })
})
