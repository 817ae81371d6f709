import { Fft, powerOfTwo } from '../../numeric/fft'
import { AUDIO_BAND, aWeighting, hz } from '../../units'

/** Widest that one frequency step may be, Hz: A-weighting falls by 12 dB an octave at 20 Hz. */
const STEP = 1.5

/** A mean power spectrum: mean square for every step of frequency, a full-scale sine's ½ in all. */
export interface PowerSpectrum {
  step: number
  powers: Float64Array
}

/** What transforms of one size need; channels, which take turns, share it, since it is large. */
interface Workshop {
  fft: Fft
  hann: Float64Array
  re: Float64Array
  im: Float64Array
}
const workshops = new Map<number, Workshop>()
function workshopOf(size: number): Workshop {
  const known = workshops.get(size) ?? {
    fft: new Fft(size),
    hann: hann(size),
    re: new Float64Array(size),
    im: new Float64Array(size),
  }
  workshops.set(size, known)
  return known
}

/**
 * Mean power spectrum of one channel by Welch's method (IEEE Trans. AU-15, 1967): Hann windows, half overlapping.
 * Two windows are transformed at once, one as the real and one as the imaginary part: the sum of their powers at k is half
 * the sum of the transform's at k and −k. The powers are added up as the transform leaves them, and put in order at the end.
 */
export class SpectrumMeter {
  private readonly size: number
  private readonly workshop: Workshop
  /** One window and a half: two that overlap. */
  private readonly input: Float64Array
  private readonly unordered: Float64Array
  private filled = 0
  private windows = 0

  constructor(
    private readonly sampleRate: number,
    widestStep = STEP,
  ) {
    this.size = powerOfTwo(sampleRate / widestStep)
    this.workshop = workshopOf(this.size)
    this.input = new Float64Array(1.5 * this.size)
    this.unordered = new Float64Array(this.size)
  }

  frames(samples: Float64Array, count: number): void {
    for (let from = 0; from < count;) {
      const take = Math.min(count - from, this.input.length - this.filled)
      this.input.set(samples.subarray(from, from + take), this.filled)
      this.filled += take
      from += take
      if (this.filled < this.input.length) continue
      this.add(2, this.workshop.hann)
      this.input.copyWithin(0, this.size)
      this.filled = this.size / 2
    }
  }

  /** `null` for nothing at all. */
  end(): PowerSpectrum | null {
    let window = this.workshop.hann
    if (this.filled >= this.size) {
      this.add(1, window)
    } else if (this.windows === 0 && this.filled > 0) {
      // Shorter than one window: it is looked at whole.
      window = new Float64Array(this.size)
      window.set(hann(this.filled))
      this.input.fill(0, this.filled)
      this.add(1, window)
    }
    if (this.windows === 0) return null
    const {
      size,
      unordered,
      workshop: {
        fft: { places },
      },
    } = this
    const scale = 1 / (size * window.reduce((sum, w) => sum + w * w, 0) * this.windows)
    const powerAt = (k: number) => scale * (unordered[places[k] as number] as number)
    // Each line but the first and the last stands for itself and its mirror image.
    const powers = Float64Array.from({ length: size / 2 + 1 }, (_, k) =>
      k === 0 || k === size / 2 ? powerAt(k) : powerAt(k) + powerAt(size - k),
    )
    return { step: this.sampleRate / size, powers }
  }

  /** Transforms one window, or two that overlap by half, and adds their powers. */
  private add(windows: 1 | 2, window: Float64Array): void {
    const {
      size,
      input,
      unordered,
      workshop: { fft, re, im },
    } = this
    const half = size / 2
    for (let i = 0; i < size; i++) {
      const w = window[i] as number
      re[i] = w * (input[i] as number)
      im[i] = windows === 2 ? w * (input[half + i] as number) : 0
    }
    fft.forwardUnordered(re, im)
    for (let i = 0; i < size; i++) {
      const r = re[i] as number
      const m = im[i] as number
      unordered[i] = (unordered[i] as number) + r * r + m * m
    }
    this.windows += windows
  }
}

const hann = (size: number) =>
  Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))

/**
 * Mean square within 20 Hz to 20 kHz, A-weighted (IEC 61672-1) and flat. The weighting is applied to the spectrum, where it is
 * exact at every frequency up to half the sample rate; a bilinear filter is not.
 */
export function weightedPower(spectrum: PowerSpectrum | null): { weighted: number; flat: number } {
  const found = { weighted: 0, flat: 0 }
  spectrum?.powers.forEach((power, k) => {
    const frequency = k * spectrum.step
    if (power === 0 || frequency < AUDIO_BAND.low || frequency > AUDIO_BAND.high) return
    found.flat += power
    found.weighted += power * 10 ** (aWeighting(hz(frequency)) / 10)
  })
  return found
}
