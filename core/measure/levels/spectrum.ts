import { Fft, powerOfTwo } from '../../numeric/fft'
import { AUDIO_BAND, aWeighting, hz } from '../../units'

/** Widest that one frequency step may be, Hz: A-weighting falls by 12 dB an octave at 20 Hz. */
const STEP = 1.5

/** A mean power spectrum: mean square for every step of frequency, a full-scale sine's ½ in all. */
export interface PowerSpectrum {
  step: number
  powers: Float64Array
}

/**
 * Mean power spectrum of one channel by Welch's method (IEEE Trans. AU-15, 1967): Hann windows, half overlapping.
 * Two windows are transformed at once, one as the real and one as the imaginary part: the sum of their powers at k is half
 * the sum of the transform's at k and −k.
 */
export class SpectrumMeter {
  private readonly fft: Fft
  private readonly size: number
  private readonly hann: Float64Array
  /** One window and a half: two that overlap. */
  private readonly input: Float64Array
  private readonly re: Float64Array
  private readonly im: Float64Array
  private readonly power: Float64Array
  private filled = 0
  private windows = 0
  /** Σ of the squared window. */
  private energy: number

  constructor(private readonly sampleRate: number, widestStep = STEP) {
    this.size = powerOfTwo(sampleRate / widestStep)
    this.fft = transform(this.size)
    this.hann = hann(this.size)
    this.energy = energyOf(this.hann)
    this.input = new Float64Array(1.5 * this.size)
    this.re = new Float64Array(this.size)
    this.im = new Float64Array(this.size)
    this.power = new Float64Array(this.size / 2 + 1)
  }

  frames(samples: Float64Array, count: number): void {
    for (let from = 0; from < count;) {
      const take = Math.min(count - from, this.input.length - this.filled)
      this.input.set(samples.subarray(from, from + take), this.filled)
      this.filled += take
      from += take
      if (this.filled < this.input.length) continue
      this.add(2)
      this.input.copyWithin(0, this.size)
      this.filled = this.size / 2
    }
  }

  /** `null` for nothing at all. */
  end(): PowerSpectrum | null {
    if (this.filled >= this.size) {
      this.add(1)
    } else if (this.windows === 0 && this.filled > 0) {
      // Shorter than one window: it is looked at whole.
      this.hann.fill(0)
      this.hann.set(hann(this.filled))
      this.energy = energyOf(this.hann)
      this.input.fill(0, this.filled)
      this.add(1)
    }
    if (this.windows === 0) return null
    return { step: this.sampleRate / this.size, powers: this.power.map((power) => power / this.windows) }
  }

  /** Transforms one window, or two that overlap by half, and adds their powers. */
  private add(windows: 1 | 2): void {
    const { size, re, im, input, power } = this
    const half = size / 2
    const { hann } = this
    for (let i = 0; i < size; i++) {
      const w = hann[i] as number
      re[i] = w * (input[i] as number)
      im[i] = windows === 2 ? w * (input[half + i] as number) : 0
    }
    this.fft.forward(re, im)
    const scale = 1 / (size * this.energy)
    power[0] = (power[0] as number) + scale * squared(re[0] as number, im[0] as number)
    power[half] = (power[half] as number) + scale * squared(re[half] as number, im[half] as number)
    // Each line below half the rate stands for itself and its mirror image.
    for (let k = 1, mirror = size - 1; k < half; k++, mirror--) {
      power[k] = (power[k] as number) + scale * (squared(re[k] as number, im[k] as number) + squared(re[mirror] as number, im[mirror] as number))
    }
    this.windows += windows
  }
}

/** Tables of a size are large; channels and repeats share them. */
const transforms = new Map<number, Fft>()
function transform(size: number): Fft {
  const known = transforms.get(size) ?? new Fft(size)
  transforms.set(size, known)
  return known
}

const squared = (r: number, m: number) => r * r + m * m
const energyOf = (window: Float64Array) => window.reduce((sum, w) => sum + w * w, 0)
const hann = (size: number) => Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))

/**
 * Mean square within 20 Hz to 20 kHz, A-weighted (IEC 61672-1) and flat. The weighting is applied to the spectrum, where it is
 * exact at every frequency up to half the sample rate; a bilinear filter is not.
 */
export function weightedPower(spectrum: PowerSpectrum | null): { weighted: number, flat: number } {
  const found = { weighted: 0, flat: 0 }
  spectrum?.powers.forEach((power, k) => {
    const frequency = k * spectrum.step
    if (power === 0 || frequency < AUDIO_BAND.low || frequency > AUDIO_BAND.high) return
    found.flat += power
    found.weighted += power * 10 ** (aWeighting(hz(frequency)) / 10)
  })
  return found
}
