import { delayed } from '../signals/fractional-delay'
import { TAIL } from '../signals/rig'
import { aWeighting, hz } from '../units'
import { powerSum } from '../numeric/power'
import { seeded, seededNormal } from '../numeric/random'
import { deviationOfWhite } from './record'
import type { SimulatedInterface } from './simulated-interface'
import { gainAtPosition } from './simulated-interface'
import { fullScaleOf, inputNoise, loadedBy } from './truth'

/** A cable of the simulated rig, from an output to an input, both counted from 0; or what is wrong with it. */
export interface SimulatedCable {
  output: number
  input: number
  /** `loose` loses contact now and then; `one-leg` carries one leg of a balanced pair; `crossed` has its legs exchanged. */
  state: 'good' | 'loose' | 'one-leg' | 'crossed'
}

/** What a simulated rig truly does, besides its first input and output. */
export interface SimulatedRigTruth {
  unit: SimulatedInterface
  inputs: number
  outputs: number
  /** Of each further output over the first, dB. */
  outputImbalance: number
  /** From one input to its neighbour, dB under it. */
  crosstalk: number
  /** Corner of the way’s high-pass of first order, Hz. */
  highPass: number
  /** Loss of the way at half the sample rate, dB. */
  topLoss: number
  /** Buffers that the driver holds both ways. */
  buffers: number
  bufferFrames: number
  cables: SimulatedCable[]
}

/** What stands in the sockets of the inputs. */
export type Plugged =
  | { socket: 'cables' }
  /** In an input, counted from 0. */
  | { socket: 'plug'; input: number; ohms: number }
  /** A calibrator on a microphone in the first input: the voltage of its tone, dBu. */
  | { socket: 'calibrator'; level: number; ohms: number }

/** Of a calibrator, Hz. */
const CALIBRATOR = 1000
/** A dropout loses so many frames. */
const LOST = 64

/** A simulated interface with cables, that plays and records at once as a real one would. */
export class SimulatedRig {
  plugged: Plugged = { socket: 'cables' }
  /** The gain of all inputs, truly given. */
  gain: number
  private takes = 0
  private hum: { gain: number; samples: Float64Array } | null = null

  constructor(
    readonly truth: SimulatedRigTruth,
    readonly sampleRate: number,
  ) {
    this.gain = truth.unit.input.gainMin
  }

  get outputs(): number {
    return this.truth.outputs
  }

  get inputs(): number {
    return this.truth.inputs
  }

  turnTo(position: number): void {
    this.gain = gainAtPosition(this.truth.unit, position)
  }

  take(played: readonly (Float64Array | null)[], frames: number): Promise<Float64Array[]> {
    const length = frames + Math.round(TAIL * this.sampleRate)
    this.takes++
    const outputs = Array.from({ length: this.outputs }, (_, o) => this.sent(played[o] ?? null, o, length))
    const sockets = Array.from({ length: this.inputs }, (_, i) => this.arriving(outputs, i, length))
    return Promise.resolve(sockets.map((_, i) => this.converted(sockets, i, length)))
  }

  /** From the host’s numbers to the output’s socket; 1 is the output’s full scale. `null` for silence. */
  private sent(samples: Float64Array | null, output: number, length: number): Float64Array | null {
    if (!samples) return null
    const { unit, buffers, bufferFrames, outputImbalance } = this.truth
    const late = delayed(samples, length, unit.latencyFrames + buffers * bufferFrames, unit.driftPpm)
    const factor = 10 ** ((output * outputImbalance) / 20)
    return filtered(late, this.truth, this.sampleRate).map((x) => factor * x)
  }

  /** At the socket of an input; 1 is the first output’s full scale, loaded by the input. */
  private arriving(outputs: readonly (Float64Array | null)[], input: number, length: number): Float64Array {
    const sum = new Float64Array(length)
    if (this.plugged.socket === 'calibrator' && input === 0) {
      const amplitude = 10 ** ((this.plugged.level - this.lead()) / 20)
      for (let i = 0; i < length; i++) sum[i] = amplitude * Math.sin((2 * Math.PI * CALIBRATOR * i) / this.sampleRate)
      return sum
    }
    for (const cable of this.cablesAt(input)) {
      const samples = outputs[cable.output]
      if (!samples) continue
      const contact = this.contactOf(cable, length)
      const factor = cable.state === 'one-leg' ? 0.5 : cable.state === 'crossed' ? -1 : 1
      for (let i = 0; i < length; i++)
        sum[i] = (sum[i] as number) + factor * (contact ? (contact[i] as number) : 1) * (samples[i] as number)
    }
    return sum
  }

  /** Something other than a cable is in an input. */
  private isPlugged = (input: number): boolean =>
    this.plugged.socket !== 'cables' && input === (this.plugged.socket === 'plug' ? this.plugged.input : 0)

  private cablesAt = (input: number): SimulatedCable[] =>
    this.isPlugged(input) ? [] : this.truth.cables.filter((each) => each.input === input)

  /** What the first output’s full scale is at an input’s socket, dBu. */
  private lead = () => this.truth.unit.output.fullScale + loadedBy(this.truth.unit, this.truth.unit.output.impedance)

  /** A loose contact: full, and now and then for a moment nearly nothing. */
  private contactOf({ state }: SimulatedCable, length: number): Float64Array | null {
    if (state !== 'loose') return null
    const next = seeded(this.truth.unit.seed * 13 + this.takes)
    next()
    const contact = new Float64Array(length).fill(1)
    for (let at = 0; at < length; at += Math.round((0.1 + 0.3 * next()) * this.sampleRate)) {
      const [until, left] = [at + Math.round((0.02 + 0.06 * next()) * this.sampleRate), 0.3 + 0.5 * next()]
      contact.fill(left, at, Math.min(length, until))
    }
    return contact
  }

  /** From the sockets to an input’s samples: gain, crosstalk, noise, hum, distortion, offset, clipping, words, dropouts. */
  private converted(sockets: readonly Float64Array[], input: number, length: number): Float64Array {
    const { truth, gain, sampleRate } = this
    const { unit, crosstalk } = truth
    const own = sockets[input] as Float64Array
    const neighbour = sockets[input === 0 ? 1 : input - 1]
    const isSecond = input > 0
    const scale =
      10 ** ((this.lead() - fullScaleOf(unit, gain) + (isSecond ? unit.imbalance : 0)) / 20) *
      (isSecond && unit.secondInverts ? -1 : 1)
    const across = 10 ** (-crosstalk / 20)
    const white = deviationOfWhite(this.noiseAt(input), sampleRate)
    const next = seededNormal(unit.seed * 31 + 1009 * this.takes + input + 1)
    const { second, third } = unit.input.harmonics
    const [a2, a3] = [2 * 10 ** (-second / 20), 4 * 10 ** (-third / 20)]
    const hum = this.humSecond()
    const step = 2 ** (1 - unit.wordLength)
    const samples = new Float64Array(length)
    for (let i = 0; i < length; i++) {
      const humming = hum ? (hum[i % hum.length] as number) : 0
      const x = scale * ((own[i] as number) + across * (neighbour?.[i] ?? 0)) + humming
      const bent = x + a2 * x * x + a3 * x * x * x + white * next() + unit.input.dc
      samples[i] = step * Math.round(Math.max(-1, Math.min(1, bent)) / step)
    }
    return this.withDropouts(samples)
  }

  /** All noise of an input as it stands, dBFS(A). */
  noiseAt(input: number): number {
    const { unit } = this.truth
    const isCable = this.cablesAt(input).length > 0
    const ohms = this.plugged.socket !== 'cables' && this.isPlugged(input) ? this.plugged.ohms : unit.output.impedance
    const cable = unit.output.noise + this.lead() - fullScaleOf(unit, this.gain) + (input > 0 ? unit.imbalance : 0)
    return powerSum([
      ...inputNoise(unit, ohms, this.gain),
      { level: unit.input.converterNoise },
      ...(isCable ? [{ level: cable }] : []),
    ]) as number
  }

  /** A second of the hum at the gain as it stands, which holds whole periods of every line. */
  private humSecond(): Float64Array | null {
    if (!this.truth.unit.input.hum || this.plugged.socket !== 'cables') return null
    if (this.hum?.gain !== this.gain) {
      const samples = new Float64Array(this.sampleRate)
      for (const { frequency, level } of this.humLines()) {
        const [amplitude, omega] = [10 ** (level / 20), (2 * Math.PI * frequency) / this.sampleRate]
        for (let i = 0; i < samples.length; i++)
          samples[i] = (samples[i] as number) + amplitude * Math.sin(omega * i + frequency)
      }
      this.hum = { gain: this.gain, samples }
    }
    return this.hum.samples
  }

  /** The lines of the hum as they are recorded, dBFS; they come over the cable. */
  humLines(): { frequency: number; level: number }[] {
    const { unit } = this.truth
    const { hum } = unit.input
    if (!hum) return []
    const level = hum.level - fullScaleOf(unit, this.gain)
    return [{ order: 1, under: 0 }, ...hum.multiples].map(({ order, under }) => ({
      frequency: order * hum.mains,
      level: level - under,
    }))
  }

  private withDropouts(samples: Float64Array): Float64Array {
    const { dropoutEvery, seed } = this.truth.unit
    if (dropoutEvery <= 0) return samples
    const next = seeded(seed + 5 + this.takes)
    const kept = new Float64Array(samples.length)
    let [read, written] = [0, 0]
    while (read < samples.length) {
      const piece = samples.subarray(read, read + Math.round(dropoutEvery * (0.5 + next()) * this.sampleRate))
      kept.set(piece, written)
      written += piece.length
      read += piece.length + LOST
    }
    return kept
  }
}

/** The way’s response: a high-pass of first order, and a gentle loss at the top without a delay. */
function filtered(
  samples: Float64Array,
  { highPass, topLoss }: Pick<SimulatedRigTruth, 'highPass' | 'topLoss'>,
  sampleRate: number,
): Float64Array {
  const pole = poleOf(highPass, sampleRate)
  const side = sideOf(topLoss)
  const out = new Float64Array(samples.length)
  let [x1, y1] = [0, 0]
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i] as number
    y1 = ((1 + pole) / 2) * (x - x1) + pole * y1
    x1 = x
    out[i] = y1
  }
  let before = 0
  for (let i = 0; i < out.length; i++) {
    const now = out[i] as number
    out[i] = (1 - 2 * side) * now + side * (before + (out[i + 1] ?? 0))
    before = now
  }
  return out
}

const poleOf = (highPass: number, sampleRate: number) => Math.exp((-2 * Math.PI * highPass) / sampleRate)
/** Weight of the two neighbours of a sample that gives a loss at half the sample rate, dB. */
const sideOf = (topLoss: number) => (1 - 10 ** (-topLoss / 20)) / 4

/** The response of the filters above at a frequency, dB. */
export function filteredAt(
  { highPass, topLoss }: Pick<SimulatedRigTruth, 'highPass' | 'topLoss'>,
  sampleRate: number,
  frequency: number,
): number {
  const omega = (2 * Math.PI * frequency) / sampleRate
  const pole = poleOf(highPass, sampleRate)
  const side = sideOf(topLoss)
  const low =
    ((1 + pole) / 2) *
    (Math.hypot(1 - Math.cos(omega), Math.sin(omega)) / Math.hypot(1 - pole * Math.cos(omega), pole * Math.sin(omega)))
  return 20 * Math.log10(low * (1 - 2 * side + 2 * side * Math.cos(omega)))
}

/** The level of lines together, dBFS, unweighted or A-weighted. */
export const linesTogether = (
  lines: readonly { frequency: number; level: number }[],
  isWeighted: boolean,
): number | null =>
  powerSum(lines.map(({ frequency, level }) => ({ level: level + (isWeighted ? aWeighting(hz(frequency)) : 0) })))

/** A rig with truths by a seed, near a simulated interface: response, crosstalk, buffers, and a good cable from the first output to the first input. */
export function simulatedRig(unit: SimulatedInterface, sampleRate: number, bufferFrames: number): SimulatedRig {
  const next = seeded(unit.seed * 104_729 + 11)
  next()
  const between = (low: number, high: number) => low + (high - low) * next()
  return new SimulatedRig(
    {
      unit: { ...unit },
      inputs: 2,
      outputs: 2,
      outputImbalance: between(-0.4, 0.4),
      crosstalk: between(70, 100),
      highPass: between(1.5, 9),
      topLoss: between(0.1, 2.5),
      buffers: 1 + Math.floor(4 * next()),
      bufferFrames,
      cables: [{ output: 0, input: 0, state: 'good' }],
    },
    sampleRate,
  )
}
