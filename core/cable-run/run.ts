import type { Loopback } from '../measure/loopback'
import { measureLoopback } from '../measure/loopback'
import { measureNoise } from '../measure/noise'
import type { Tone } from '../measure/tone'
import { measureTone } from '../measure/tone'
import { faded, sine } from '../signals/generate'
import { joined } from '../numeric/joined'
import type { Rig } from '../signals/rig'
import { TAIL } from '../signals/rig'
import { makeSignal } from '../signals/signal'
import type { CableFindings, Doubt, FoundMark, FoundRoundTrip, IdleNoise, Value } from './findings'
import type { FoundCable } from './find-cables'
import { findCables, isUnsteady } from './find-cables'
import type { LockedTone } from './lock-in'
import { lockedTone } from './lock-in'
import type { Part, Wanted } from './moves'
import { partsInOrder } from './moves'
import { responseOf, responseSignal } from './response'
import type { Answer, CableProblem, GainHint, GainMark, Hand, Move } from './hand'

/** The input that is measured, as its data sheet has it. */
export interface Subject {
  /** Its channel in the recording, from 0. */
  input: number
  gainMin: number
  gainMax: number
  /** Of a gain that is set in steps on a scale; 0 for a knob. */
  gainStep: number
  /** The buffer that is set, frames. */
  bufferFrames: number
}

/** The run was given up: no cable was found, and none was brought. */
export class NoCable extends Error {
  override readonly name = 'NoCable'
}

/** A tone that no mains line falls on, and that holds whole periods in a block, Hz. */
const TONE = 970
/** For a hand multimeter: most read true to 400 Hz, and it is no multiple of the mains, Hz. */
const METER_TONE = 130
/** AES17, Hz. */
const AES17_TONE = 997
/** Crosstalk grows with frequency: measured at these, Hz. */
const CROSSTALK_TONES = [970, 10_010] as const
/** Nothing is played louder, dBFS. */
const LOUDEST = -1
/** Edges of a tone, which are not looked at, s. */
const EDGE = 0.06

/** What is left of any level by the converter’s steps, the fit and the plug’s contact (common practice, no source), dB. */
const LEAST_U = 0.01
/** Of a level of noise: band edges and weighting between meters (common practice, no source), dB. */
const NOISE_U = 0.08
/** Of a lag, frames. */
const LAG_U = 0.03
/** A lag whose passes differ by more, their drift taken out, has lost samples, frames. */
const STEADY = 2
/** A clock that is off by more is another clock, ppm. */
const DRIFTS = 3

/** Seconds of signal in each part, as far as they are known before, so that the progress is true. */
const LASTS: Record<Part, number> = {
  'microphone': 4,
  'loop': 42,
  'meter': 8,
  'other-buffer': 7,
  'marks': 8,
  'plug': 8,
}

/**
 * Measures an interface by one cable from an output to an input: finds the cable, climbs from −60 dBFS, and then measures what the cable
 * tells by itself. Asks for a hand only where it must, in the order with the fewest moves.
 * @throws NoCable where none was found and none was brought
 */
export async function runCable(rig: Rig, subject: Subject, wanted: Wanted, hand: Hand): Promise<CableFindings> {
  return new CableRun(rig, subject, wanted, hand).run()
}

class CableRun {
  private cable!: FoundCable
  private second: FoundCable | null = null
  private lag = 0
  private driftPpm = 0
  /** At the gain as it stands, dB. */
  private loopGain = 0
  private seconds = 0
  private doubts = new Set<Doubt>()
  private done = 0
  private readonly total: number
  private readonly parts: Part[]
  private doing = ''
  /** Samples were lost before that was put right. */
  private hasLostSamples = false

  constructor(
    private readonly rig: Rig,
    private readonly subject: Subject,
    private readonly wanted: Wanted,
    private readonly hand: Hand,
  ) {
    this.parts = partsInOrder(wanted)
    this.total = this.parts.reduce((sum, part) => sum + LASTS[part] * (part === 'marks' ? this.marksWanted() : 1), 0)
  }

  async run(): Promise<CableFindings> {
    const { rig, parts } = this
    const microphone = parts.includes('microphone') ? await this.microphone() : null
    await this.findCable()
    const loop = await this.loop()
    const meter = parts.includes('meter') ? await this.meter() : null
    const other = parts.includes('other-buffer') ? await this.otherBuffer() : null
    const marks = parts.includes('marks') ? await this.marks(loop.loopGain.value) : []
    const top = marks.at(-1)
    const plug = parts.includes('plug') && top ? await this.plug(top) : null
    this.hand.progress('Done', 1)
    return {
      sampleRate: rig.sampleRate,
      cable: this.cable,
      second: this.second,
      ...loop,
      roundTrips: [...loop.roundTrips, ...(other ? [other] : [])],
      marks,
      plug,
      meter,
      // What was read while samples were being lost is not to be trusted.
      microphone: this.hasLostSamples ? null : microphone,
      doubts: [...this.doubts],
      seconds: this.seconds,
    }
  }

  // ---- what is played and recorded

  private async take(
    played: readonly (Float64Array | null)[],
    frames: number,
    goesOn = false,
  ): Promise<Float64Array[]> {
    const seconds = frames / this.rig.sampleRate + TAIL
    const recorded = await this.rig.take(played, frames, goesOn)
    this.seconds += seconds
    this.done += seconds
    this.hand.progress(this.doing, Math.min(0.99, this.done / this.total))
    return recorded
  }

  private says(doing: string) {
    this.doing = doing
    this.hand.progress(doing, Math.min(0.99, this.done / this.total))
  }

  /** Played to the cable’s output; each input from where the signal comes back. */
  private async played(signal: Float64Array, output = this.cable.output): Promise<Float64Array[]> {
    const signals = Array.from({ length: this.rig.outputs }, (_, i) => (i === output ? signal : null))
    const recorded = await this.take(signals, signal.length)
    const from = Math.max(0, Math.round(this.lag))
    return recorded.map((samples) => samples.subarray(from, from + signal.length))
  }

  private toneOf = (frequency: number, level: number, seconds: number) =>
    faded(sine(this.rig.sampleRate, seconds + 2 * EDGE, frequency, level), this.rig.sampleRate, 0.02)

  private withoutEdges(samples: Float64Array): Float64Array {
    const edge = Math.round(EDGE * this.rig.sampleRate)
    return samples.subarray(edge, samples.length - edge)
  }

  /** So loud that the input reads a level, dBFS, and never over the loudest. */
  private levelFor = (read: number) => Math.min(LOUDEST, read - this.loopGain)

  /** A level that jumps is remembered. */
  private watch(tone: LockedTone, seconds: number) {
    if (tone.jumps) this.doubts.add('samples-lost')
    else if (isUnsteady(tone, 10 * seconds)) this.doubts.add('loose')
  }

  private async fittedTone(read: number, seconds: number): Promise<Tone | null> {
    const signal = this.toneOf(AES17_TONE, this.levelFor(read), seconds)
    const recorded = this.withoutEdges((await this.played(signal))[this.cable.input] as Float64Array)
    const found = measureTone(recorded, this.rig.sampleRate)
    return 'code' in found ? null : found
  }

  private async idle(seconds: number, input = this.cable.input): Promise<IdleNoise | null> {
    const frames = Math.round(seconds * this.rig.sampleRate)
    const recorded = await this.take([], frames)
    const found = measureNoise((recorded[input] as Float64Array).subarray(0, frames), this.rig.sampleRate)
    if ('code' in found) return null
    return {
      value: found.withoutHum,
      u: Math.hypot(found.deviation / Math.sqrt(Math.max(1, found.seconds)), NOISE_U),
      hum: found.hum,
    }
  }

  /** Goes on with something until a move is done or left out. */
  private async until(move: Move, meanwhile: () => Promise<unknown>): Promise<Answer> {
    const answered = this.hand.ask(move)
    for (;;) {
      const answer = answered()
      if (answer) return answer
      await meanwhile()
    }
  }

  private pause = () => this.take([], Math.round(0.2 * this.rig.sampleRate))

  // ---- the parts

  private async microphone(): Promise<CableFindings['microphone']> {
    const known = this.wanted.microphone
    if (!known) return null
    this.says('Waiting for the microphone')
    const answer = await this.until({ do: 'microphone', level: known.level }, this.pause)
    if (!answer.done) return null
    this.says('The microphone’s level')
    const frames = Math.round(3 * this.rig.sampleRate)
    const recorded = (await this.take([], frames))[this.subject.input] as Float64Array
    const found = measureTone(recorded.subarray(0, frames), this.rig.sampleRate)
    if ('code' in found) return null
    return { value: found.level, u: Math.hypot(found.deviation, LEAST_U, known.give / Math.sqrt(3)), ...known }
  }

  private async findCable(): Promise<void> {
    const { input } = this.subject
    if (this.parts[0] === 'microphone') await this.until({ do: 'cable', problem: null }, this.pause)
    for (let isAccepted = false; ;) {
      this.says('Looking for the cable')
      const { cables } = await findCables(this.rig)
      this.seconds += 3
      const cable = cables.find((each) => each.input === input) ?? cables[0]
      const problem = problemOf(cable, input)
      if (cable && (!problem || isAccepted)) {
        if (cable.isLoose) this.doubts.add('loose')
        if (cable.losesSamples) this.doubts.add('samples-lost')
        this.cable = cable
        this.second = cables.find((each) => each.input !== cable.input && each.output !== cable.output) ?? null
        this.loopGain = cable.loopGain
        return
      }
      const answer = await this.until({ do: 'cable', problem: problem ?? { code: 'none' } }, this.pause)
      if (answer.done) continue
      if (!cable) throw new NoCable()
      isAccepted = true
    }
  }

  private async loop() {
    this.says('Round trip')
    const roundTrip = await this.firstRoundTrip()
    this.lag = roundTrip.found?.lagFrames ?? 0
    this.says('Loop gain and linearity')
    const linear = await this.linearity()
    this.loopGain = linear.loopGain.value
    this.says('Dynamic range and distortion')
    const [loud, less, quiet] = [
      await this.fittedTone(-1, 2),
      await this.fittedTone(-20, 2),
      await this.fittedTone(-60, 4),
    ] as const
    const distorted = [loud, less].filter((each) => each !== null)
    const [clearest] = distorted
    if (clearest) this.driftPpm = (AES17_TONE / clearest.frequency - 1) * 1e6
    this.says('Frequency response')
    const response = await this.response()
    this.says('Noise and hum with the cable plugged in')
    const idle = await this.idle(5)
    const channels = this.second ? await this.channels(this.second) : { balance: null, crosstalk: [] }
    return {
      ...linear,
      response,
      dynamicRange: quiet?.residualA == null ? null : { value: -quiet.residualA, u: NOISE_U },
      distortion: distorted.flatMap((each) =>
        each.thdN === null
          ? []
          : { read: each.level, value: each.thdN, u: NOISE_U, second: harmonic(each, 2), third: harmonic(each, 3) },
      ),
      polarity: roundTrip.found?.polarity ?? 1,
      idle,
      roundTrips: roundTrip.value ? [roundTrip.value] : [],
      ...channels,
    }
  }

  /** Where samples are lost from the beginning, no figure would be worth anything: a hand is asked to put that right first. */
  private async firstRoundTrip() {
    for (;;) {
      const found = await this.roundTrip(this.subject.bufferFrames)
      if (!this.doubts.has('samples-lost')) return found
      const answer = await this.until({ do: 'cable', problem: { code: 'samples-lost' } }, this.pause)
      if (!answer.done) return found
      this.doubts.delete('samples-lost')
      this.hasLostSamples = true
      this.says('Round trip')
    }
  }

  private async roundTrip(bufferFrames: number): Promise<{ found: Loopback | null; value: FoundRoundTrip | null }> {
    const { rig, cable } = this
    const signal = makeSignal({ kind: 'sequence', level: this.levelFor(-12) }, rig.sampleRate)
    const recorded = await this.take(
      Array.from({ length: rig.outputs }, (_, i) => (i === cable.output ? signal : null)),
      signal.length,
    )
    const found = measureLoopback(signal, recorded[cable.input] as Float64Array, rig.sampleRate)
    if (!found) return { found, value: null }
    const drift = found.driftPpm ?? 0
    if (found.spreadFrames > STEADY) {
      this.doubts.add('samples-lost')
      return { found, value: null }
    }
    if (Math.abs(drift) > DRIFTS) this.doubts.add('two-clocks')
    return {
      found,
      value: {
        bufferFrames,
        value: found.lagFrames,
        // With two clocks the lag is another one at the beginning than at the end.
        u: Math.hypot(
          found.spreadFrames / Math.sqrt(3),
          LAG_U,
          (Math.abs(drift) * 1e-6 * signal.length) / Math.sqrt(3),
        ),
        spread: found.spreadFrames,
        drift,
      },
    }
  }

  /** A staircase downwards: the loop gain at the middle of it, and what each step is off. */
  private async linearity(): Promise<{ loopGain: Value; linearity: CableFindings['linearity'] }> {
    const { rig, cable } = this
    const reads = [-6, -12, -18, -24, -30, -36, -42, -48, -54, -60]
    const tones = reads.map((read) => this.toneOf(TONE, this.levelFor(read), 0.6))
    const recorded = (await this.played(joined(tones)))[cable.input] as Float64Array
    const length = tones[0]?.length ?? 0
    const steps = reads.flatMap((read, i) => {
      const found = lockedTone(this.withoutEdges(recorded.subarray(i * length, (i + 1) * length)), rig.sampleRate, TONE)
      if (found) this.watch(found, 0.6)
      return found ? { read: found.level, gain: found.level - this.levelFor(read), error: found.error } : []
    })
    const middle = steps.find(({ read }) => Math.abs(read + 18) < 4) ?? steps[0]
    const gain = middle?.gain ?? cable.loopGain
    const worst = steps.reduce(
      (most, step) => (Math.abs(step.gain - gain) > Math.abs(most.gain - gain) ? step : most),
      middle ?? { gain, error: 0 },
    )
    return {
      loopGain: { value: gain, u: Math.hypot(middle?.error ?? 0, LEAST_U) },
      linearity: {
        value: Math.abs(worst.gain - gain),
        u: Math.hypot(worst.error, LEAST_U / 2),
        steps: steps.map((step) => ({ read: step.read, off: step.gain - gain })),
      },
    }
  }

  private async response(): Promise<CableFindings['response']> {
    const signal = responseSignal(this.rig.sampleRate, this.levelFor(-6))
    const recorded = (await this.played(signal))[this.cable.input] as Float64Array
    return responseOf(signal, recorded, this.rig.sampleRate, this.driftPpm)
  }

  /** With a second cable: how its way differs from the first, and what of the first output comes to the second input. */
  private async channels(second: FoundCable): Promise<Pick<CableFindings, 'balance' | 'crosstalk'>> {
    const { rig, cable } = this
    this.says('Balance and crosstalk')
    const level = this.levelFor(-6)
    const heard = async (frequency: number, output: number) =>
      (await this.played(this.toneOf(frequency, level, 1.5), output)).map((samples) => {
        const middle = this.withoutEdges(samples)
        return { samples: middle, tone: lockedTone(middle, rig.sampleRate, frequency) }
      })
    const other = (await heard(TONE, second.output))[second.input]?.tone ?? null
    if (other) this.watch(other, 1.5)
    let balance: Value | null = null
    const crosstalk: CableFindings['crosstalk'] = []
    for (const frequency of CROSSTALK_TONES) {
      const inputs = await heard(frequency, cable.output)
      const [own, across] = [inputs[cable.input]?.tone, inputs[second.input]]
      if (!own || !across) continue
      if (frequency === TONE && other)
        balance = { value: other.level - own.level, u: Math.hypot(own.error, other.error, LEAST_U) }
      const floor = 20 * Math.log10(Math.SQRT2 * rootMeanSquare(across.samples))
      crosstalk.push({
        frequency,
        value: (across.tone?.level ?? floor) - own.level,
        u: across.tone ? Math.hypot(across.tone.error, own.error, LEAST_U) : 0,
        isFloor: !across.tone,
      })
    }
    return { balance, crosstalk }
  }

  private async meter(): Promise<CableFindings['meter']> {
    this.says('Tone for the multimeter')
    const played = Math.round(this.levelFor(-6))
    const tone = sine(this.rig.sampleRate, 2, METER_TONE, played)
    const signals = Array.from({ length: this.rig.outputs }, (_, i) => (i === this.cable.output ? tone : null))
    const answer = await this.until({ do: 'meter', played }, () => this.take(signals, tone.length, true))
    // A take of nothing ends the tone.
    await this.pause()
    return answer.done && answer.value !== undefined && answer.value > 0 ? { volts: answer.value, played } : null
  }

  private async otherBuffer(): Promise<FoundRoundTrip | null> {
    const frames = this.wanted.otherBuffer
    if (frames === null) return null
    this.says('Waiting for the buffer')
    const answer = await this.until({ do: 'buffer', frames }, this.pause)
    if (!answer.done) return null
    this.says('Round trip at the other buffer')
    const { found, value } = await this.roundTrip(frames)
    if (found) this.lag = found.lagFrames
    return value
  }

  private marksWanted = () => Math.max(this.wanted.plug ? 2 : 1, Math.min(10, this.wanted.marks))

  /** Gains in turn, from the lowest to the highest: each is waited for, heard, and measured with its noise. */
  private async marks(lowest: number): Promise<FoundMark[]> {
    const { gainMax, gainMin } = this.subject
    const found: FoundMark[] = []
    for (const mark of marksOf(this.subject, this.marksWanted()).slice(1)) {
      this.says('Waiting for the gain')
      const headroom = gainMax - gainMin - (this.loopGain - lowest)
      const heard = await this.gainAndNoise(mark, Math.max(-90, Math.min(-12, -12 - headroom)))
      if (!heard) continue
      const { gain, noise } = heard
      this.loopGain = gain.value
      if (noise) found.push({ mark, gain: { value: gain.value - lowest, u: Math.hypot(gain.u, LEAST_U) }, noise })
    }
    return found
  }

  /** A hand that paused on its way and turned on while the noise was measured is waited for again. */
  private async gainAndNoise(mark: GainMark, read: number): Promise<{ gain: Value; noise: IdleNoise | null } | null> {
    for (;;) {
      const gain = await this.turned(mark, read)
      if (!gain) return null
      this.says('Noise at this gain')
      const noise = await this.idle(3)
      const played = Math.min(LOUDEST, read - gain.value)
      const after = (await this.look(played)).tone
      if (!after || Math.abs(after.level - played - gain.value) < TURNED || this.doubts.size > 0) return { gain, noise }
      this.says('Waiting for the gain')
    }
  }

  /** One look at the loop: the tone in it, and whether it is about to clip. */
  private async look(played: number): Promise<{ tone: LockedTone | null; isHot: boolean }> {
    const recorded = (await this.played(this.toneOf(TONE, played, 0.6)))[this.cable.input] as Float64Array
    const middle = this.withoutEdges(recorded)
    return { tone: lockedTone(middle, this.rig.sampleRate, TONE), isHot: middle.some((x) => Math.abs(x) > 0.9) }
  }

  /** Waits until the gain was turned up and stands still. @returns the loop gain there; `null` where it was left out */
  private async turned(mark: GainMark, read: number): Promise<Value | null> {
    const before = this.loopGain
    let played = this.levelFor(read)
    let hint: GainHint | null = null
    let answered = this.hand.ask({ do: 'gain', to: mark, hint })
    let last: number | null = null
    for (let unsteady = 0; ;) {
      if (answered()?.done === false) return null
      const { tone, isHot } = await this.look(played)
      if (isHot) {
        played -= 20
        last = null
        continue
      }
      const gain = tone && tone.level - played
      const next: GainHint | null = gain === null ? 'cable-out' : gain < before - TURNED ? 'turned-down' : null
      if (next !== hint) {
        hint = next
        answered = this.hand.ask({ do: 'gain', to: mark, hint })
      }
      const isStill = tone !== null && tone.scatter < STILL + 4 * tone.error * Math.sqrt(6)
      if (gain !== null && gain > before + TURNED && !isStill && ++unsteady > MOST_UNSTEADY) {
        this.watch(tone as LockedTone, 0.6)
        return { value: gain, u: Math.max(STILL, (tone as LockedTone).scatter) }
      }
      if (gain !== null && isStill && gain > before + TURNED && last !== null && Math.abs(gain - last) < STILL)
        return { value: (gain + last) / 2, u: Math.hypot(tone.error, Math.abs(gain - last) / 2) }
      last = isStill ? gain : null
    }
  }

  private async plug(top: FoundMark): Promise<CableFindings['plug']> {
    this.says('Waiting for the 150 Ω plug')
    const answer = await this.until({ do: 'plug' }, this.pause)
    if (!answer.done) return null
    this.says('Noise with the 150 Ω plug')
    const noise = await this.idle(5)
    return noise && { ...noise, gain: top.gain.value }
  }
}

/** A gain that changes by less was not turned, dB. */
const TURNED = 0.5
/** After so many looks at a gain that was turned and never stands still it is taken as it is, and marked. */
const MOST_UNSTEADY = 20
/** A gain that moves by less from one look to the next stands still, dB. */
const STILL = 0.05

function problemOf(cable: FoundCable | undefined, wanted: number): CableProblem | null {
  if (!cable) return { code: 'none' }
  const { output, input } = cable
  if (cable.isLoose) return { code: 'loose', output, input }
  return input === wanted ? null : { code: 'wrong-input', output, input, wanted }
}

/** Marks from the lowest to the highest: evenly over the turn of a knob, or over the scale of a gain that has steps. */
export function marksOf({ gainMin, gainMax, gainStep }: Subject, count: number): GainMark[] {
  if (gainMax <= gainMin) return [{ position: 7 }]
  return Array.from({ length: count }, (_, i) => {
    const part = count === 1 ? 0 : i / (count - 1)
    return gainStep > 0
      ? { said: gainMin + gainStep * Math.round((part * (gainMax - gainMin)) / gainStep) }
      : { position: Math.round(4 * (7 + 10 * part)) / 4 }
  })
}

const harmonic = ({ harmonics, level }: Tone, order: number): number | null => {
  const found = harmonics.find((each) => each.order === order)
  return found ? found.level - level : null
}

const rootMeanSquare = (samples: Float64Array) => Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length)
