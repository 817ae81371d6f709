import type { Tone } from '../measure/tone'
import { joined } from '../numeric/joined'
import type { CableFindings, FoundCable, FoundDistortion, Value } from './findings'
import { lockedTone } from './lock-in'
import type { CableLoop } from './loop'
import { AES17_TONE, NOISE_U, TONE } from './loop'
import { responseOf, responseSignal } from './response'

/** What is left of any level by the converter’s steps, the fit and the plug’s contact (common practice, no source), dB. */
export const LEAST_U = 0.01
/** Crosstalk grows with frequency: measured at these, Hz. */
const CROSSTALK_TONES = [TONE, 10_010] as const
/** Steps of the linearity, as they are to read, dBFS. */
const STEPS = [-6, -12, -18, -24, -30, -36, -42, -48, -54, -60] as const
/** The step that the others count against, dBFS. */
const MIDDLE = -18

/** A staircase downwards: the loop gain at the middle of it, and what each step is off. */
export async function linearity(loop: CableLoop): Promise<{ loopGain: Value; linearity: CableFindings['linearity'] }> {
  const tones = STEPS.map((read) => loop.toneOf(TONE, loop.levelFor(read), 0.6))
  const recorded = await loop.returned(joined(tones))
  const length = tones[0]?.length ?? 0
  const steps = STEPS.flatMap((read, i) => {
    const found = loop.locked(recorded.subarray(i * length, (i + 1) * length), TONE)
    return found ? { read: found.level, gain: found.level - loop.levelFor(read), error: found.error } : []
  })
  const middle = steps.reduce<(typeof steps)[number] | null>(
    (best, step) => (best && Math.abs(best.read - MIDDLE) <= Math.abs(step.read - MIDDLE) ? best : step),
    null,
  )
  const gain = middle?.gain ?? loop.cable.loopGain
  const off = steps.map((step) => ({ read: step.read, off: step.gain - gain, error: step.error }))
  const worst = off.reduce((most, step) => (Math.abs(step.off) > Math.abs(most.off) ? step : most), {
    off: 0,
    error: middle?.error ?? 0,
  })
  return {
    loopGain: { value: gain, u: Math.hypot(middle?.error ?? 0, LEAST_U) },
    linearity: {
      value: Math.abs(worst.off),
      u: Math.hypot(worst.error, LEAST_U / 2),
      steps: off.map((step) => ({ read: step.read, off: step.off })),
    },
  }
}

/** Dynamic range and distortion by AES17, and what the frequency of the tone says of the clocks. */
export async function distortion(
  loop: CableLoop,
): Promise<Pick<CableFindings, 'dynamicRange' | 'distortion'> & { driftPpm: number }> {
  const loud = await loop.fittedTone(-1, 2)
  const less = await loop.fittedTone(-20, 2)
  const quiet = await loop.fittedTone(-60, 4)
  const tones = [loud, less].filter((each) => each !== null)
  return {
    driftPpm: tones[0] ? (AES17_TONE / tones[0].frequency - 1) * 1e6 : 0,
    dynamicRange: quiet?.residualA == null ? null : { value: -quiet.residualA, u: NOISE_U },
    distortion: tones.flatMap(distortionOf),
  }
}

const distortionOf = (tone: Tone): FoundDistortion[] =>
  tone.thdN === null
    ? []
    : [{ read: tone.level, value: tone.thdN, u: NOISE_U, second: harmonic(tone, 2), third: harmonic(tone, 3) }]

const harmonic = ({ harmonics, level }: Tone, order: number): number | null => {
  const found = harmonics.find((each) => each.order === order)
  return found ? found.level - level : null
}

/** @param driftPpm how much faster the recording’s clock runs than the playing one’s */
export async function response(loop: CableLoop, driftPpm: number): Promise<CableFindings['response']> {
  const signal = responseSignal(loop.sampleRate, loop.levelFor(-6))
  return responseOf(signal, await loop.returned(signal), loop.sampleRate, driftPpm)
}

/** With a second cable: how its way differs from the first, and what of the first output comes to the second input. */
export async function channels(
  loop: CableLoop,
  second: FoundCable,
): Promise<Pick<CableFindings, 'balance' | 'crosstalk'>> {
  const level = loop.levelFor(-6)
  const heard = (frequency: number, output: number) => loop.played(loop.toneOf(frequency, level, 1.5), output)
  const other = loop.locked((await heard(TONE, second.output))[second.input] as Float64Array, TONE)
  let balance: Value | null = null
  const crosstalk: CableFindings['crosstalk'] = []
  for (const frequency of CROSSTALK_TONES) {
    const inputs = await heard(frequency, loop.cable.output)
    const own = loop.locked(inputs[loop.cable.input] as Float64Array, frequency)
    if (!own) continue
    if (frequency === TONE && other)
      balance = { value: other.level - own.level, u: Math.hypot(own.error, other.error, LEAST_U) }
    const across = loop.withoutEdges(inputs[second.input] as Float64Array)
    const tone = lockedTone(across, loop.sampleRate, frequency)
    crosstalk.push({
      frequency,
      value: (tone?.level ?? sineLevelOf(across)) - own.level,
      u: tone ? Math.hypot(tone.error, own.error, LEAST_U) : 0,
      isFloor: !tone,
    })
  }
  return { balance, crosstalk }
}

/** The level of a sine with the power of the samples, dBFS. */
const sineLevelOf = (samples: Float64Array) =>
  10 * Math.log10((2 * samples.reduce((sum, x) => sum + x * x, 0)) / samples.length)
