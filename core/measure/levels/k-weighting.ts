/** A second-order section, with its state. */
export class Biquad {
  private x1 = 0
  private x2 = 0
  private y1 = 0
  private y2 = 0

  constructor(private readonly b0: number, private readonly b1: number, private readonly b2: number, private readonly a1: number, private readonly a2: number) {}

  /** Filters the first `count` samples into another array, which may be the same. */
  run(input: Float64Array, output: Float64Array, count: number): void {
    const { b0, b1, b2, a1, a2 } = this
    let { x1, x2, y1, y2 } = this
    for (let i = 0; i < count; i++) {
      const x = input[i] as number
      const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2
      x2 = x1
      x1 = x
      y2 = y1
      y1 = y
      output[i] = y
    }
    this.x1 = x1
    this.x2 = x2
    this.y1 = y1
    this.y2 = y2
  }
}

/**
 * K-weighting, ITU-R BS.1770-4, at any sample rate: the analogue prototypes of its two sections, by the bilinear transform,
 * which gives the tabled coefficients at 48 kHz. (The prototypes' parameters are those that the table was derived from;
 * from memory, checked against the table.)
 */
export function kWeighting(sampleRate: number): [Biquad, Biquad] {
  return [shelf(sampleRate), highPass(sampleRate)]
}

function shelf(sampleRate: number): Biquad {
  const [f0, gain, q] = [1681.974450955533, 3.999843853973347, 0.7071752369554196]
  const k = Math.tan((Math.PI * f0) / sampleRate)
  const vh = 10 ** (gain / 20)
  const vb = vh ** 0.4996667741545416
  const a0 = 1 + k / q + k * k
  return new Biquad((vh + (vb * k) / q + k * k) / a0, (2 * (k * k - vh)) / a0, (vh - (vb * k) / q + k * k) / a0, (2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0)
}

function highPass(sampleRate: number): Biquad {
  const [f0, q] = [38.13547087602444, 0.5003270373238773]
  const k = Math.tan((Math.PI * f0) / sampleRate)
  const a0 = 1 + k / q + k * k
  return new Biquad(1, -2, 1, (2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0)
}
