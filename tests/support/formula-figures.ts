import { amplifierSensitivity, powerLevel } from '#core/gear/amplifier/chain'
import type { Signal } from '#core/chain/signal'
import { sumSignals } from '#core/chain/sum'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { mixRows } from '#core/evaluation/mix'
import { estimatedLoudness } from '#core/evaluation/stream'
import type { FormulaId } from '#core/formula'
import { loadAt, loadModel } from '#core/latency/cpu-load'
import { recordingBytes } from '#core/latency/disk'
import { rateMismatch } from '#core/latency/rate-mismatch'
import { fitRoundTrips } from '#core/latency/round-trip-fit'
import type { LevelsReport } from '#core/measure/levels/measure-levels'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import type { RoundTrip } from '#core/model'
import { weeklyHours } from '#core/monitoring/exposure'
import { blendGains } from '#core/monitoring/mix'
import { powerSum } from '#core/numeric/power'
import { planSession } from '#core/plan/plan-session'
import { sine, whiteNoise } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { timeSession } from '#core/timing/time-session'
import { aWeighting, hz, ohms } from '#core/units'
import { arriving } from './arriving'
import { chain, interfaceWith, line, lineInput, micInput, preamp } from './chains'
import { twoMixes } from './desk'
import { example1, valid, withAt } from './sessions'

/** A signal with a noise of −80 dB of one device. */
const noisy = (strip: string, device: string): Signal => ({
  ...arriving(strip, -20, -9, 0),
  noise: [{ strip: device, stage: device, device, name: 'preamp', below: -80 }],
  noisePower: 1e-8,
})
const noiseOf = (...signals: Signal[]) => 10 * Math.log10(sumSignals({ id: 'bus' }, signals).signal.noisePower) + 80

const trip = (sampleRate: number, bufferFrames: number, milliseconds: number) =>
  ({ sampleRate, bufferFrames, milliseconds }) as RoundTrip
const timed = (system: object) =>
  valid({ ...example1(), system: { sampleRate: 48000, bitDepth: 24, bufferFrames: 128, ...system } })

const ends = () => evaluateSession(valid(twoMixes())).strips.at(-1)

/** What a device does to a line source of 100 Ω, whose level is 0 dBu, and its own figures. */
function behind(gear: Record<string, unknown>, settings: object = {}, source: object = {}) {
  const { strips } = evaluateSession(
    chain([{ gear: line({ impedance: 0, ...source }) }, { gear, settings }], { version: 2 }),
  )
  const [before, after] = strips[0]?.points ?? []
  const own = strips[0]?.noise.filter(({ stage }) => stage === 's1') ?? []
  return {
    gain: (after?.average ?? NaN) - (before?.average ?? NaN),
    headroom: after?.headroom ?? NaN,
    noise: own.map(({ level }) => level),
  }
}

/** Noise at the terminals of an input behind a pad of 150 Ω: what comes through them, and the excess of its preamp. */
function intoPreamp(ein: number): number {
  const { strips } = evaluateSession(
    chain(
      [
        { gear: line({ noise: undefined, impedance: 0 }) },
        { gear: { kind: 'pad', specs: { loss: 20, inputImpedance: 10_000, outputImpedance: 150 } } },
        { gear: interfaceWith(micInput({ ein, impedance: undefined })), port: 'in1', settings: { gain: 0 } },
      ],
      { version: 2 },
    ),
  )
  const noise = strips[0]?.noise.filter(({ name }) => name === 'thermal' || name === 'preamp') ?? []
  // Full scale at 0 dB is +15 dBu.
  return (powerSum(noise) ?? NaN) + 15
}

const plannedGain = (step: number) =>
  planSession(valid(withAt(example1(), ['gear', 2, 'inputs', 0, 'specs', 'gainStep'], step))).settings[0]?.to ?? NaN

function measured(...channels: Float64Array[]): LevelsReport {
  const meter = new LevelsMeter()
  meter.push(writeWav(channels, 48_000, 'float'))
  const result = meter.end()
  if (!result.ok) throw new Error(result.fault.message)
  return result.report
}

/** What the product gives for formulas whose check wants more than a line. */
export const figures: Partial<Record<FormulaId, () => number[]>> = {
  'busses-surge-of-a-sum': () => [
    sumSignals({ id: 'bus' }, [arriving('a', -20, -9, 6), arriving('b', -26, -15, 10)]).sum.surge,
  ],
  'busses-noise-of-a-sum': () => [
    noiseOf(noisy('a', 'one'), noisy('b', 'other')),
    noiseOf(noisy('a', 'one'), noisy('b', 'one')),
  ],
  'busses-loudspeaker': () => [ends()?.points.at(-1)?.average ?? NaN],
  'busses-amplifier': () => [
    powerLevel(200, ohms(8)),
    amplifierSensitivity({ specs: { gain: 32, maxPower: 200, load: 8 } as never, gain: 0 as never }),
  ],
  'busses-feedback-margin': () => [ends()?.feedback?.margin ?? NaN],
  'busses-loudness-estimated': () => [estimatedLoudness(-23)],
  'busses-pfl': () => {
    const session = valid(twoMixes())
    return mixRows(session, evaluateSession(session)).flatMap(({ pfl }) => (pfl ? [pfl.peak] : []))
  },
  'latency-measured': () => {
    const session = timed({ roundTrips: [trip(48_000, 128, 9), trip(48_000, 128, 9.2)] })
    return timeSession(session).matrix.flatMap(({ sampleRate, bufferFrames, softwareMs }) =>
      sampleRate === 48_000 && bufferFrames === 128 ? [softwareMs] : [],
    )
  },
  'latency-fit': () =>
    [14.9, 14.7].map(
      (figure) => fitRoundTrips([trip(44_100, 512, figure)], 1).fit?.predict(44_100, 256).milliseconds ?? NaN,
    ),
  'latency-load': () => {
    const readings = [
      { sampleRate: 48_000, bufferFrames: 128, percent: 83 },
      { sampleRate: 48_000, bufferFrames: 256, percent: 61 },
    ]
    return [loadAt(loadModel(readings as never) as never, 48_000, 512).percent]
  },
  'latency-recording-offset': () => [
    timeSession(
      timed({
        roundTrips: [trip(48_000, 128, 9)],
        reported: [{ sampleRate: 48_000, bufferFrames: 128, inMs: 3.5, outMs: 3.5 }],
      }),
    ).overdubOffsetFrames ?? NaN,
  ],
  'latency-rate-mismatch': () => {
    const { longer, semitones } = rateMismatch(48_000, 44_100)
    return [longer, semitones]
  },
  'latency-file-size': () => [recordingBytes(48_000, 24, 2, 3600) / 1e9],
  'monitoring-mix-control': () => [blendGains(50).own, blendGains(50).playback, blendGains(75).own],
  'monitoring-a-week': () => [80, 83].map(weeklyHours),
  'noise-a-weighting': () => [18, 30, 39].map((n) => aWeighting(hz(10 ** (n / 10)))),
  'noise-passive-resistance': () => [-127, -131].map(intoPreamp),
  'planner-planned-gain': () => [plannedGain(1), plannedGain(5)],
  'recordings-level': () => {
    const { peak, rms } = measured(sine(48_000, 2, 997, -6.0206)).channels[0] ?? {}
    return [peak ?? NaN, rms ?? NaN]
  },
  'recordings-loudness': () => {
    const tone = sine(48_000, 5, 997, -23)
    return [measured(tone, tone).programme.integrated ?? NaN]
  },
  'recordings-true-peak': () => {
    const tone = sine(48_000, 1, 12_000, -6, Math.PI / 4)
    // Faded, or the edge itself would be the peak.
    const edge = 2400
    const faded = tone.map((x, i) => x * Math.min(1, i / edge, (tone.length - 1 - i) / edge))
    const { truePeak, peak } = measured(faded).channels[0] ?? {}
    return [truePeak ?? NaN, peak ?? NaN]
  },
  'recordings-a-weighted': () => {
    const { rms, rmsA } = measured(whiteNoise(48_000, 20, -20, 7)).channels[0] ?? {}
    // White to 24 kHz: the band's part of it is 10 lg(19 980/24 000).
    return [(rmsA ?? NaN) - ((rms ?? NaN) + 10 * Math.log10(19_980 / 24_000))]
  },
  'levels-dbfs': () => [measured(sine(48_000, 2, 997, 0)).channels[0]?.rms ?? NaN],
  'wire-pad': () => [behind({ kind: 'pad', specs: { loss: 20, inputImpedance: 10_000, outputImpedance: 150 } }).gain],
  'stages-inline-preamp': () => [
    behind({ kind: 'booster', specs: { gain: 24, ein: -128, inputImpedance: 20_000, outputImpedance: 150 } }).gain,
  ],
  'stages-preamp': () => {
    const { gain, headroom } = behind(
      preamp({ maxInput: 10, maxOutput: 60, pad: 20 }),
      { gain: 40, pad: true },
      { level: -33.97 },
    )
    return [gain, headroom]
  },
  'stages-desk-channel': () => [
    behind(
      {
        kind: 'desk-channel',
        phantom: true,
        specs: { gainMin: 0, gainMax: 60, maxOutput: 60, ein: -126, inputImpedance: 2000 },
      },
      { gain: 40, fader: -6 },
      { level: -40 },
    ).gain,
  ],
  'stages-fader': () => [behind({ kind: 'fader', specs: { inputImpedance: 20_000 } }, { gain: -6 }).gain],
  'stages-wireless-link': () =>
    behind({ kind: 'link', medium: 'wireless', specs: { gain: 0, dynamicRange: 100, maxOutput: 4 } }).noise,
  'stages-digital-link-digital-input': () => {
    const { strips } = evaluateSession(
      chain(
        [
          { gear: line({ impedance: 0, level: -20 }) },
          { gear: interfaceWith(lineInput({ fullScale: 0 })), port: 'in1', settings: { gain: 0 } },
          { gear: { kind: 'link', medium: 'optical', specs: {} } },
          { gear: interfaceWith({ type: 'digital' }), port: 'in1' },
        ],
        { version: 2 },
      ),
    )
    const [, first, , last] = strips[0]?.points ?? []
    return [(last?.average ?? NaN) - (first?.average ?? NaN), last?.headroom ?? NaN]
  },
}
