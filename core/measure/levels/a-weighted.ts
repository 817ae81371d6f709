import { Fft, powerOfTwo } from '../../numeric/fft'
import { AUDIO_BAND, aWeighting, hz } from '../../units'

/** Widest that one frequency step may be, Hz: A-weighting falls by 12 dB an octave at 20 Hz. */
const STEP = 1.5

/** What transforms of one size and rate need; channels, which take turns, share it, since it is large. */
interface Workshop {
  fft: Fft
  hann: Float64Array
  /** The A-curve as a factor of power for every line, in the order in which the transform leaves them; 0 outside the band. */
  curve: Float64Array
  re: Float64Array
  im: Float64Array
}
const workshops = new Map<string, Workshop>()
function workshopOf(size: number, sampleRate: number): Workshop {
  const key = `${size} ${sampleRate}`
  const known = workshops.get(key)
  if (known) return known
  const fft = new Fft(size)
  const curve = new Float64Array(size)
  for (let k = 0; k < size; k++) {
    const frequency = (Math.min(k, size - k) * sampleRate) / size
    const inside = frequency >= AUDIO_BAND.low && frequency <= AUDIO_BAND.high
    curve[fft.places[k] as number] = inside ? 10 ** (aWeighting(hz(frequency)) / 10) : 0
  }
  const workshop = { fft, hann: hann(size), curve, re: new Float64Array(size), im: new Float64Array(size) }
  workshops.set(key, workshop)
  return workshop
}

const hann = (size: number) =>
  Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))

/**
 * A-weighted mean square of one channel, 20 Hz to 20 kHz (IEC 61672-1), in which no sample counts less than another.
 *
 * Hann windows that overlap by half tell what part of the power the weighting leaves; that part is taken of the power
 * that the samples under the middle of the windows truly have, and at the ends of the recording of all that are left. So
 * nothing is tapered, and where a recording is cut off no click is heard that is not in it. The weighting is applied to
 * the spectrum, where it is exact up to half the sample rate; a bilinear filter is not.
 */
export class AWeightedMeter {
  private readonly size: number
  private readonly workshop: Workshop
  /** One window and a half: two that overlap, transformed at once as real and imaginary part. */
  private readonly input: Float64Array
  private filled = 0
  /** From here on the samples of the input have not been counted. */
  private uncounted = 0
  private weighted = 0
  private count = 0
  /** Samples whose weighted energy is in. */
  private counted = 0

  constructor(sampleRate: number) {
    this.size = powerOfTwo(sampleRate / STEP)
    this.workshop = workshopOf(this.size, sampleRate)
    this.input = new Float64Array(1.5 * this.size)
  }

  frames(samples: Float64Array, count: number): void {
    this.count += count
    for (let from = 0; from < count;) {
      const take = Math.min(count - from, this.input.length - this.filled)
      this.input.set(samples.subarray(from, from + take), this.filled)
      this.filled += take
      from += take
      if (this.filled === this.input.length) this.pair()
    }
  }

  /** Two windows, and the samples up to the middle of what the second has for itself. */
  private pair(): void {
    const { size, input, workshop } = this
    const { hann: window, re, im } = workshop
    const half = size / 2
    for (let i = 0; i < size; i++) {
      const w = window[i] as number
      re[i] = w * (input[i] as number)
      im[i] = w * (input[half + i] as number)
    }
    this.add(1.25 * size)
    input.copyWithin(0, size)
    this.filled = half
    this.uncounted = 0.25 * size
  }

  /** The part that the weighting leaves of what is in the workshop, of the samples up to a place. */
  private add(to: number): void {
    const { fft, curve, re, im } = this.workshop
    fft.forwardUnordered(re, im)
    let flat = 0
    let weighted = 0
    for (let i = 0; i < this.size; i++) {
      const r = re[i] as number
      const m = im[i] as number
      const power = r * r + m * m
      flat += power
      weighted += power * (curve[i] as number)
    }
    this.counted += to - this.uncounted
    if (flat === 0) return
    let energy = 0
    for (let i = this.uncounted; i < to; i++) energy += (this.input[i] as number) ** 2
    this.weighted += energy * (weighted / flat)
  }

  /** The mean square of what was weighted since this was asked last; `null` where that is nothing yet. */
  taken(): number | null {
    if (this.counted === 0) return null
    const power = this.weighted / this.counted
    this.weighted = 0
    this.counted = 0
    return power
  }

  /** Mean square, a full-scale sine of 1 kHz ½. */
  end(): number {
    const { filled, input, workshop } = this
    if (filled > this.uncounted) {
      // What is left, whole: less than a window and a half.
      const length = Math.min(filled, this.size)
      const from = filled - length
      const window = hann(length)
      workshop.re.fill(0)
      workshop.im.fill(0)
      for (let i = 0; i < length; i++) workshop.re[i] = (window[i] as number) * (input[from + i] as number)
      this.add(filled)
    }
    return this.count === 0 ? 0 : this.weighted / this.count
  }
}
