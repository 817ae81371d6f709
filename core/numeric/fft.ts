/** Two stages of a transform: cos and sin of 2πk/(4h), as many as a butterfly of the second is wide. */
interface Pass {
  half: number
  cos: Float64Array
  sin: Float64Array
}

/** Numbers that stay in a processor's cache together with their other half. */
const PIECE = 8192

/**
 * A fast Fourier transform of one power-of-two size, in place, with its tables worked out once.
 *
 * Decimation in time with two stages of radix 2 taken in one pass: half as many walks through memory, which is what a
 * long transform spends its time on.
 */
export class Fft {
  private readonly passes: Pass[] = []
  /** An odd number of stages: the first one is done by itself. */
  private readonly odd: boolean
  /** Places to be exchanged, in pairs. */
  private readonly swaps: Uint32Array

  constructor(readonly size: number) {
    if (size < 2 || (size & (size - 1)) !== 0) throw new Error(`An FFT wants a power of two, not ${size}.`)
    const bits = Math.log2(size)
    this.odd = bits % 2 === 1
    this.swaps = bitReversal(size, bits)
    for (let half = bits % 2 === 0 ? 4 : 2; half < size; half *= 4) {
      this.passes.push({
        half,
        cos: Float64Array.from({ length: half }, (_, k) => Math.cos((Math.PI * k) / (2 * half))),
        sin: Float64Array.from({ length: half }, (_, k) => Math.sin((Math.PI * k) / (2 * half))),
      })
    }
  }

  /** X[k] = Σ x[n] e^(−2πi kn/N). */
  forward(re: Float64Array, im: Float64Array): void {
    exchange(re, this.swaps)
    exchange(im, this.swaps)
    if (this.odd) sumsAndDifferences(re, im, this.size)
    else firstFours(re, im, this.size)
    // The first passes are done piece by piece while a piece is in the processor's cache, the last ones over all of it.
    for (let from = 0; from < this.size; from += PIECE) {
      for (const pass of this.passes) if (4 * pass.half <= PIECE) fourAtOnce(re, im, from, Math.min(this.size, from + PIECE), pass)
    }
    for (const pass of this.passes) if (4 * pass.half > PIECE) fourAtOnce(re, im, 0, this.size, pass)
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

function bitReversal(size: number, bits: number): Uint32Array {
  const pairs: number[] = []
  for (let i = 0; i < size; i++) {
    let from = i
    let to = 0
    for (let b = 0; b < bits; b++) {
      to = (to << 1) | (from & 1)
      from >>= 1
    }
    if (to > i) pairs.push(i, to)
  }
  return Uint32Array.from(pairs)
}

function exchange(values: Float64Array, swaps: Uint32Array): void {
  for (let i = 0; i < swaps.length; i += 2) {
    const a = swaps[i] as number
    const b = swaps[i + 1] as number
    const kept = values[a] as number
    values[a] = values[b] as number
    values[b] = kept
  }
}

/** The first stage of a transform with an odd number of them. */
function sumsAndDifferences(re: Float64Array, im: Float64Array, size: number): void {
  for (let i = 0; i < size; i += 2) {
    const r = re[i + 1] as number
    const m = im[i + 1] as number
    re[i + 1] = (re[i] as number) - r
    im[i + 1] = (im[i] as number) - m
    re[i] = (re[i] as number) + r
    im[i] = (im[i] as number) + m
  }
}

/** The first two stages together: their turns are quarters, so nothing is multiplied. */
function firstFours(re: Float64Array, im: Float64Array, size: number): void {
  for (let a = 0; a < size; a += 4) {
    const sumR = (re[a] as number) + (re[a + 1] as number)
    const sumI = (im[a] as number) + (im[a + 1] as number)
    const offR = (re[a] as number) - (re[a + 1] as number)
    const offI = (im[a] as number) - (im[a + 1] as number)
    const upR = (re[a + 2] as number) + (re[a + 3] as number)
    const upI = (im[a + 2] as number) + (im[a + 3] as number)
    const downR = (re[a + 2] as number) - (re[a + 3] as number)
    const downI = (im[a + 2] as number) - (im[a + 3] as number)
    re[a] = sumR + upR
    im[a] = sumI + upI
    re[a + 1] = offR + downI
    im[a + 1] = offI - downR
    re[a + 2] = sumR - upR
    im[a + 2] = sumI - upI
    re[a + 3] = offR - downI
    im[a + 3] = offI + downR
  }
}

/** Two stages, of butterflies `half` and then twice `half` apart. The turn of the first is that of the second twice over. */
function fourAtOnce(re: Float64Array, im: Float64Array, from: number, to: number, { half, cos, sin }: Pass): void {
  for (let start = from; start < to; start += 4 * half) {
    for (let k = 0; k < half; k++) {
      const c2 = cos[k] as number
      const s2 = sin[k] as number
      const c1 = c2 * c2 - s2 * s2
      const s1 = 2 * c2 * s2
      const a = start + k
      const b = a + half
      const c = b + half
      const d = c + half
      const br = (re[b] as number) * c1 + (im[b] as number) * s1
      const bi = (im[b] as number) * c1 - (re[b] as number) * s1
      const dr = (re[d] as number) * c1 + (im[d] as number) * s1
      const di = (im[d] as number) * c1 - (re[d] as number) * s1
      const ar = re[a] as number
      const ai = im[a] as number
      const cr = re[c] as number
      const ci = im[c] as number
      const sumR = ar + br
      const sumI = ai + bi
      const offR = ar - br
      const offI = ai - bi
      const upR = cr + dr
      const upI = ci + di
      const downR = cr - dr
      const downI = ci - di
      const ur = upR * c2 + upI * s2
      const ui = upI * c2 - upR * s2
      // A quarter turn further: (r, i) becomes (i, −r).
      const vr = downI * c2 - downR * s2
      const vi = -(downR * c2 + downI * s2)
      re[a] = sumR + ur
      im[a] = sumI + ui
      re[c] = sumR - ur
      im[c] = sumI - ui
      re[b] = offR + vr
      im[b] = offI + vi
      re[d] = offR - vr
      im[d] = offI - vi
    }
  }
}

/** The least power of two that is not below a length. */
export const powerOfTwo = (length: number): number => 2 ** Math.ceil(Math.log2(Math.max(2, length)))
