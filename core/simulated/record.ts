import { pinkNoise, sine } from '../signals/generate'
import { seeded, seededNormal } from '../numeric/random'
import type { Signal } from '../signals/signal'
import { makeSignal } from '../signals/signal'
import { writeWav } from '../signals/write-wav'
import { powerSum } from '../numeric/power'
import { AUDIO_BAND, WHITE_UNDER_A } from '../units'
import { delayed } from '../signals/fractional-delay'
import type { SimulatedInterface } from './simulated-interface'
import { fullScaleOf, inputNoise, loadedBy } from './truth'

/** What one channel of the recording is connected to. Gains are those truly given. */
export type Connection =
  /** The signal itself, as the host plays it: the reference of a loopback. */
  | { from: 'host'; signal: Signal }
  /** A cable from the output; several gains are a knob that is turned on every `holdSeconds`. */
  | {
      from: 'output'
      signal: Signal
      gains: readonly number[]
      holdSeconds?: number
      bufferFrames?: number
      second?: boolean
    }
  /** A resistor at the input; 0 Ω is a shorted plug. */
  | { from: 'resistor'; ohms: number; seconds: number; gain: number; humming?: boolean }
  /** A microphone before a voice that rises and falls: average and greatest peak at the input, dBu. */
  | { from: 'voice'; average: number; seconds: number; gain: number; ohms: number }

/** A recording to be made on the simulated interface, in words. */
export interface Take {
  simulated: SimulatedInterface
  sampleRate: number
  channels: readonly Connection[]
  /** Which repeat it is: another noise. */
  repeat?: number
}

/** Silence that the host records before and after a signal comes back, s. */
const TAIL = 0.5
/** A dropout loses so many frames: what comes after it comes sooner. */
const LOST = 64

/** Makes the WAV file that hardware would have made. */
export function recordTake({ simulated, sampleRate, channels, repeat = 0 }: Take): Uint8Array<ArrayBuffer> {
  const tracks = channels.map((connection, i) =>
    track(simulated, connection, sampleRate, simulated.seed * 31 + i + 97 * repeat),
  )
  const length = Math.max(...tracks.map((each) => each.length))
  const even = tracks.map((each) => {
    const whole = new Float64Array(length)
    whole.set(each)
    return whole
  })
  return writeWav(even, sampleRate, simulated.wordLength, { seed: simulated.seed + 3 })
}

function track(simulated: SimulatedInterface, connection: Connection, sampleRate: number, seed: number): Float64Array {
  switch (connection.from) {
    case 'host':
      return makeSignal(connection.signal, sampleRate)
    case 'output': {
      const { signal, gains, holdSeconds = Infinity, bufferFrames = 0, second = false } = connection
      const played = makeSignal(signal, sampleRate)
      const came = delayed(
        played,
        played.length + Math.round(TAIL * sampleRate),
        simulated.latencyFrames + bufferFrames,
        simulated.driftPpm,
      )
      addNoise(came, sampleRate, simulated.output.noise, seed)
      const lead = simulated.output.fullScale + loadedBy(simulated, simulated.output.impedance)
      const gainOf = (i: number) =>
        gains[Math.min(gains.length - 1, Math.floor(i / sampleRate / holdSeconds))] as number
      return convert(simulated, came, lead, simulated.output.impedance, gainOf, sampleRate, seed + 1000, {
        second,
        humming: false,
      })
    }
    case 'resistor': {
      const { ohms, seconds, gain, humming = false } = connection
      return convert(
        simulated,
        new Float64Array(Math.round(seconds * sampleRate)),
        0,
        ohms,
        () => gain,
        sampleRate,
        seed + 2000,
        { humming },
      )
    }
    case 'voice': {
      const { average, seconds, gain, ohms } = connection
      return convert(simulated, voice(sampleRate, seconds, seed), average, ohms, () => gain, sampleRate, seed + 3000, {
        humming: false,
      })
    }
  }
}

/**
 * From the input's socket to the samples: gain, polarity, the source's and the preamp's noise, hum, distortion, converter
 * noise, DC, clipping, dropouts. `level` is what the samples' 0 dBFS is at the socket, dBu.
 */
function convert(
  simulated: SimulatedInterface,
  samples: Float64Array,
  level: number,
  ohms: number,
  gainOf: (i: number) => number,
  sampleRate: number,
  seed: number,
  { second = false, humming = false },
): Float64Array {
  const { input } = simulated
  const factor = (gain: number) =>
    10 ** ((level - fullScaleOf(simulated, gain) + (second ? simulated.imbalance : 0)) / 20) *
    (second && simulated.secondInverts ? -1 : 1)
  const [a2, a3] = [2 * 10 ** (-input.harmonics.second / 20), 4 * 10 ** (-input.harmonics.third / 20)]
  const noise = new Float64Array(samples.length)
  // The noise is made for one gain, and grows with the others: a tone is far over it while a knob is turned.
  const base = gainOf(0)
  addNoise(noise, sampleRate, powerSum(inputNoise(simulated, ohms, base)) ?? -300, seed)
  const hum = humming ? humOf(simulated, sampleRate, samples.length, base) : null
  const converter = new Float64Array(samples.length)
  addNoise(converter, sampleRate, input.converterNoise, seed + 1)
  let [gain, scale, grown] = [base, factor(base), 1]
  for (let i = 0; i < samples.length; i++) {
    const now = gainOf(i)
    if (now !== gain) {
      gain = now
      scale = factor(now)
      grown = 10 ** ((now - base) / 20)
    }
    const x = (samples[i] as number) * scale + grown * ((noise[i] as number) + (hum?.[i] ?? 0))
    const bent = x + a2 * x * x + a3 * x * x * x + (converter[i] as number) + input.dc
    samples[i] = Math.max(-1, Math.min(1, bent))
  }
  return withDropouts(simulated, samples, sampleRate)
}

/** Standard deviation of white noise of an A-weighted level within 20 Hz to 20 kHz, dBFS(A), spread evenly up to half the sample rate. */
export function deviationOfWhite(levelA: number, sampleRate: number): number {
  const inBand = 10 ** ((levelA - WHITE_UNDER_A) / 10) / 2
  return Math.sqrt((inBand * sampleRate) / 2 / (AUDIO_BAND.high - AUDIO_BAND.low))
}

function addNoise(samples: Float64Array, sampleRate: number, levelA: number, seed: number): void {
  const deviation = deviationOfWhite(levelA, sampleRate)
  const next = seededNormal(seed)
  for (let i = 0; i < samples.length; i++) samples[i] = (samples[i] as number) + deviation * next()
}

function humOf(simulated: SimulatedInterface, sampleRate: number, length: number, gain: number): Float64Array | null {
  const { hum } = simulated.input
  if (!hum) return null
  const level = hum.level - fullScaleOf(simulated, gain)
  const sum = new Float64Array(length)
  for (const { order, under } of [{ order: 1, under: 0 }, ...hum.multiples]) {
    sine(sampleRate, length / sampleRate, order * hum.mains, level - under, order).forEach((x, i) => {
      sum[i] = (sum[i] as number) + x
    })
  }
  return sum
}

/** Takes out what a machine that is too slow loses. */
function withDropouts(
  { dropoutEvery, seed }: SimulatedInterface,
  samples: Float64Array,
  sampleRate: number,
): Float64Array {
  if (dropoutEvery <= 0) return samples
  const next = seeded(seed + 5)
  const kept = new Float64Array(samples.length)
  let [read, written] = [0, 0]
  while (read < samples.length) {
    const piece = samples.subarray(read, read + Math.round(dropoutEvery * (0.5 + next()) * sampleRate))
    kept.set(piece, written)
    written += piece.length
    read += piece.length + LOST
  }
  return kept
}

/** Phrases of noise that rise and fall, with pauses; its average is 0 dBFS. */
function voice(sampleRate: number, seconds: number, seed: number): Float64Array {
  const samples = pinkNoise(sampleRate, seconds, 0, seed)
  const next = seeded(seed + 7)
  const steps = Math.ceil(seconds * 4) + 2
  const loudness = Array.from({ length: steps }, () => 0.25 + 0.75 * next())
  for (let i = 0; i < samples.length; i++) {
    const at = (4 * i) / sampleRate
    const k = Math.floor(at)
    const part = 0.5 - 0.5 * Math.cos(Math.PI * (at - k))
    samples[i] = (samples[i] as number) * ((loudness[k] as number) * (1 - part) + (loudness[k + 1] as number) * part)
  }
  const rms = Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length)
  return samples.map((x) => x / rms / Math.SQRT2)
}

/** What a hand multimeter at the output shows while a signal is played, V: true RMS of its steady part, to four figures. */
export function readVolts({ output }: SimulatedInterface, signal: Signal, sampleRate: number): number {
  const samples = makeSignal(signal, sampleRate)
  const middle = samples.subarray(samples.length >> 2, 3 * (samples.length >> 2))
  const rms = Math.sqrt(middle.reduce((sum, x) => sum + x * x, 0) / middle.length)
  const volts = rms * Math.SQRT2 * 10 ** (output.fullScale / 20) * Math.sqrt(0.6)
  return Number(volts.toPrecision(4))
}
