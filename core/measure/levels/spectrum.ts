import { Fft, powerOfTwo } from '../../numeric/fft'
import { AUDIO_BAND, aWeighting, hz } from '../../units'

/** Longest that one frequency step may be wide, Hz: A-weighting falls by 12 dB an octave at 20 Hz. */
const STEP = 1.5

/**
 * Mean power spectrum of one channel by Welch's method: Hann windows, half overlapping. Weighting is applied to the
 * spectrum, where it is exact at every frequency up to half the sample rate; a bilinear filter is not.
 */
export class SpectrumMeter {
  private readonly fft: Fft
  private readonly window: Float64Array
  private readonly input: Float64Array
  private readonly re: Float64Array
  private readonly im: Float64Array
  private readonly power: Float64Array
  private filled = 0
  private blocks = 0

  constructor(private readonly sampleRate: number) {
    const size = powerOfTwo(sampleRate / STEP)
    this.fft = new Fft(size)
    this.window = hann(size)
    this.input = new Float64Array(size)
    this.re = new Float64Array(size)
    this.im = new Float64Array(size)
    this.power = new Float64Array(size / 2 + 1)
  }

  frames(samples: Float64Array, count: number): void {
    const { size } = this.fft
    for (let from = 0; from < count;) {
      const take = Math.min(count - from, size - this.filled)
      this.input.set(samples.subarray(from, from + take), this.filled)
      this.filled += take
      from += take
      if (this.filled < size) continue
      this.add(this.window, size)
      this.input.copyWithin(0, size / 2)
      this.filled = size / 2
    }
  }

  /** Mean square within the band of 20 Hz to 20 kHz, A-weighted or flat; `null` for nothing at all. */
  end(): { weighted: number, flat: number, step: number, density: Float64Array } | null {
    // A file shorter than one window is looked at whole.
    if (this.blocks === 0 && this.filled > 0) {
      this.input.fill(0, this.filled)
      this.add(hann(this.filled), this.filled)
    }
    if (this.blocks === 0) return null
    const step = this.sampleRate / this.fft.size
    let [weighted, flat] = [0, 0]
    const density = this.power.map((power) => power / this.blocks)
    density.forEach((power, k) => {
      const frequency = k * step
      if (frequency < AUDIO_BAND.low || frequency > AUDIO_BAND.high) return
      flat += power
      weighted += power * 10 ** (aWeighting(hz(frequency)) / 10)
    })
    return { weighted, flat, step, density }
  }

  private add(window: Float64Array, length: number): void {
    const { size } = this.fft
    let energy = 0
    for (let i = 0; i < size; i++) {
      const w = i < length ? window[i] as number : 0
      energy += w * w
      this.re[i] = (this.input[i] as number) * w
      this.im[i] = 0
    }
    this.fft.forward(this.re, this.im)
    const scale = 1 / (size * energy)
    for (let k = 0; k <= size / 2; k++) {
      const both = k === 0 || k === size / 2 ? 1 : 2
      this.power[k] = (this.power[k] as number) + both * scale * ((this.re[k] as number) ** 2 + (this.im[k] as number) ** 2)
    }
    this.blocks++
  }
}

const hann = (size: number) => Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
