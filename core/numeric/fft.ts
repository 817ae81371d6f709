/** A fast Fourier transform of one power-of-two size, in place, with its tables worked out once. */
export class Fft {
  private readonly cos: Float64Array
  private readonly sin: Float64Array
  private readonly reversed: Uint32Array

  constructor(readonly size: number) {
    if (size < 2 || (size & (size - 1)) !== 0) throw new Error(`An FFT wants a power of two, not ${size}.`)
    this.cos = Float64Array.from({ length: size / 2 }, (_, i) => Math.cos((2 * Math.PI * i) / size))
    this.sin = Float64Array.from({ length: size / 2 }, (_, i) => Math.sin((2 * Math.PI * i) / size))
    const bits = Math.log2(size)
    this.reversed = Uint32Array.from({ length: size }, (_, i) => {
      let [from, to] = [i, 0]
      for (let b = 0; b < bits; b++) {
        to = (to << 1) | (from & 1)
        from >>= 1
      }
      return to >>> 0
    })
  }

  /** X[k] = Σ x[n] e^(−2πi kn/N). */
  forward(re: Float64Array, im: Float64Array): void {
    const { size, cos, sin, reversed } = this
    for (let i = 0; i < size; i++) {
      const j = reversed[i] as number
      if (j <= i) continue
      const [r, m] = [re[i] as number, im[i] as number]
      re[i] = re[j] as number
      im[i] = im[j] as number
      re[j] = r
      im[j] = m
    }
    for (let half = 1; half < size; half *= 2) {
      const stride = size / (2 * half)
      for (let start = 0; start < size; start += 2 * half) {
        for (let k = 0, t = 0; k < half; k++, t += stride) {
          const [c, s] = [cos[t] as number, sin[t] as number]
          const [a, b] = [start + k, start + k + half]
          const [rb, ib] = [re[b] as number, im[b] as number]
          const r = rb * c + ib * s
          const m = ib * c - rb * s
          const [ra, ia] = [re[a] as number, im[a] as number]
          re[b] = ra - r
          im[b] = ia - m
          re[a] = ra + r
          im[a] = ia + m
        }
      }
    }
  }

  /** The inverse: exchanging real and imaginary parts before and after turns the one into the other. */
  inverse(re: Float64Array, im: Float64Array): void {
    this.forward(im, re)
    for (let i = 0; i < this.size; i++) {
      re[i] = (re[i] as number) / this.size
      im[i] = (im[i] as number) / this.size
    }
  }
}

/** The least power of two that is not below a length. */
export const powerOfTwo = (length: number): number => 2 ** Math.ceil(Math.log2(Math.max(2, length)))
