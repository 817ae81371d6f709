/** Two stages of a transform: cos and sin of 2πk/(4h) for each k under h. */
interface Pass {
  quarter: number
  cos: Float64Array
  sin: Float64Array
}

/** Numbers that stay in a processor's cache together with their other half. */
const PIECE = 8192

/**
 * A fast Fourier transform of one power-of-two size, in place, with its tables worked out once.
 *
 * Decimation in frequency with two stages of radix 2 taken in one pass: half as many walks through memory, which is what a
 * long transform spends its time on. The lines come out in bit-reversed order; whoever only adds them up can leave them so.
 */
export class Fft {
  /** From the widest to the narrowest. */
  private readonly passes: Pass[] = []
  /** An odd number of stages: the last one is done by itself. */
  private readonly odd: boolean
  /** Where each line stands in the transform as it comes out. */
  readonly places: Uint32Array

  constructor(readonly size: number) {
    if (size < 2 || (size & (size - 1)) !== 0) throw new Error(`An FFT needs a power of two, not ${size}.`)
    this.odd = Math.log2(size) % 2 === 1
    this.places = bitReversal(size)
    let turns = turnsOf(size >> 2)
    for (let quarter = size >> 2; quarter >= 2; quarter >>= 2) {
      this.passes.push({ quarter, ...turns })
      turns = { cos: turns.cos.filter((_, k) => k % 4 === 0), sin: turns.sin.filter((_, k) => k % 4 === 0) }
    }
  }

  /** X[k] = Σ x[n] e^(−2πi kn/N). */
  forward(re: Float64Array, im: Float64Array): void {
    this.forwardUnordered(re, im)
    exchange(re, this.places)
    exchange(im, this.places)
  }

  /** The same, with X[k] at `places[k]`. */
  forwardUnordered(re: Float64Array, im: Float64Array): void {
    // The first passes go over all of it, the last ones piece by piece while a piece is in the processor's cache.
    for (const pass of this.passes) if (4 * pass.quarter > PIECE) fourAtOnce(re, im, 0, this.size, pass)
    for (let from = 0; from < this.size; from += PIECE) {
      const to = Math.min(this.size, from + PIECE)
      for (const pass of this.passes) if (4 * pass.quarter <= PIECE) fourAtOnce(re, im, from, to, pass)
      if (this.odd) sumsAndDifferences(re, im, from, to)
      else lastFours(re, im, from, to)
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

/** A quarter of a full turn in so many steps. */
const turnsOf = (steps: number) => ({
  cos: Float64Array.from({ length: steps }, (_, k) => Math.cos((Math.PI * k) / (2 * steps))),
  sin: Float64Array.from({ length: steps }, (_, k) => Math.sin((Math.PI * k) / (2 * steps))),
})

function bitReversal(size: number): Uint32Array {
  const places = new Uint32Array(size)
  for (let i = 1; i < size; i++) places[i] = ((places[i >> 1] as number) >> 1) | (i & 1 ? size >> 1 : 0)
  return places
}

function exchange(values: Float64Array, places: Uint32Array): void {
  for (let a = 0; a < places.length; a++) {
    const b = places[a] as number
    if (b <= a) continue
    const kept = values[a] as number
    values[a] = values[b] as number
    values[b] = kept
  }
}

/** The last stage of a transform with an odd number of them. */
function sumsAndDifferences(re: Float64Array, im: Float64Array, from: number, to: number): void {
  for (let a = from; a < to; a += 2) {
    const r = re[a + 1] as number
    const m = im[a + 1] as number
    re[a + 1] = (re[a] as number) - r
    im[a + 1] = (im[a] as number) - m
    re[a] = (re[a] as number) + r
    im[a] = (im[a] as number) + m
  }
}

/** The last two stages together: their turns are quarters, so nothing is multiplied. */
function lastFours(re: Float64Array, im: Float64Array, from: number, to: number): void {
  for (let a = from; a < to; a += 4) {
    const sumR = (re[a] as number) + (re[a + 2] as number)
    const sumI = (im[a] as number) + (im[a + 2] as number)
    const offR = (re[a] as number) - (re[a + 2] as number)
    const offI = (im[a] as number) - (im[a + 2] as number)
    const upR = (re[a + 1] as number) + (re[a + 3] as number)
    const upI = (im[a + 1] as number) + (im[a + 3] as number)
    // A quarter turn further: (r, i) becomes (i, −r).
    const downR = (im[a + 1] as number) - (im[a + 3] as number)
    const downI = (re[a + 3] as number) - (re[a + 1] as number)
    re[a] = sumR + upR
    im[a] = sumI + upI
    re[a + 1] = sumR - upR
    im[a + 1] = sumI - upI
    re[a + 2] = offR + downR
    im[a + 2] = offI + downI
    re[a + 3] = offR - downR
    im[a + 3] = offI - downI
  }
}

/** Two stages, of butterflies twice `quarter` and then `quarter` apart. */
function fourAtOnce(re: Float64Array, im: Float64Array, from: number, to: number, { quarter, cos, sin }: Pass): void {
  for (let start = from; start < to; start += 4 * quarter) {
    for (let k = 0; k < quarter; k++) {
      const a = start + k
      const b = a + quarter
      const c = b + quarter
      const d = c + quarter
      const sumR = (re[a] as number) + (re[c] as number)
      const sumI = (im[a] as number) + (im[c] as number)
      const offR = (re[a] as number) - (re[c] as number)
      const offI = (im[a] as number) - (im[c] as number)
      const upR = (re[b] as number) + (re[d] as number)
      const upI = (im[b] as number) + (im[d] as number)
      const downR = (im[b] as number) - (im[d] as number)
      const downI = (re[d] as number) - (re[b] as number)
      re[a] = sumR + upR
      im[a] = sumI + upI
      const c1 = cos[k] as number
      const s1 = sin[k] as number
      // Twice and three times the turn, multiplied out: more tables would push one another out of the cache.
      const c2 = c1 * c1 - s1 * s1
      const s2 = 2 * c1 * s1
      const c3 = c1 * c2 - s1 * s2
      const s3 = c1 * s2 + s1 * c2
      const twoR = sumR - upR
      const twoI = sumI - upI
      re[b] = twoR * c2 + twoI * s2
      im[b] = twoI * c2 - twoR * s2
      const oneR = offR + downR
      const oneI = offI + downI
      re[c] = oneR * c1 + oneI * s1
      im[c] = oneI * c1 - oneR * s1
      const threeR = offR - downR
      const threeI = offI - downI
      re[d] = threeR * c3 + threeI * s3
      im[d] = threeI * c3 - threeR * s3
    }
  }
}

/** The least power of two that is not below a length. */
export const powerOfTwo = (length: number): number => 2 ** Math.ceil(Math.log2(Math.max(2, length)))
