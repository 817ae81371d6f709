/** A second-order section: y = b0·x + b1·x₁ + b2·x₂ − a1·y₁ − a2·y₂. */
export interface Section {
  b0: number
  b1: number
  b2: number
  a1: number
  a2: number
}

/**
 * K-weighting, ITU-R BS.1770-4, at any sample rate: the analogue prototypes of its two sections, by the bilinear transform,
 * which gives the tabled coefficients at 48 kHz. (The prototypes' parameters are those that the table was derived from;
 * from memory, checked against the table.)
 */
export function kWeighting(sampleRate: number): [Section, Section] {
  return [shelf(sampleRate), highPass(sampleRate)]
}

function shelf(sampleRate: number): Section {
  const [f0, gain, q] = [1681.974450955533, 3.999843853973347, 0.7071752369554196]
  const k = Math.tan((Math.PI * f0) / sampleRate)
  const vh = 10 ** (gain / 20)
  const vb = vh ** 0.4996667741545416
  const a0 = 1 + k / q + k * k
  return {
    b0: (vh + (vb * k) / q + k * k) / a0,
    b1: (2 * (k * k - vh)) / a0,
    b2: (vh - (vb * k) / q + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / q + k * k) / a0,
  }
}

function highPass(sampleRate: number): Section {
  const [f0, q] = [38.13547087602444, 0.5003270373238773]
  const k = Math.tan((Math.PI * f0) / sampleRate)
  const a0 = 1 + k / q + k * k
  return { b0: 1, b1: -2, b2: 1, a1: (2 * (k * k - 1)) / a0, a2: (1 - k / q + k * k) / a0 }
}

/** Both sections one behind the other, with their state between blocks. */
export class KFilter {
  private readonly sections: [Section, Section]
  /** The shelf’s last two inputs, its last two outputs, which the high-pass is given, and the last two of that. */
  private readonly state = new Float64Array(6)

  constructor(sampleRate: number) {
    this.sections = kWeighting(sampleRate)
  }

  /** Takes samples in, and gives the sum of the squares of what comes out: no loudness needs the filtered samples themselves. */
  energy(samples: Float64Array, from: number, to: number): number {
    const [{ b0, b1, b2, a1, a2 }, { a1: c1, a2: c2 }] = this.sections
    const { state } = this
    let x1 = state[0] as number
    let x2 = state[1] as number
    let y1 = state[2] as number
    let y2 = state[3] as number
    let z1 = state[4] as number
    let z2 = state[5] as number
    let sum = 0
    for (let i = from; i < to; i++) {
      const x = samples[i] as number
      const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2
      // The high-pass’s b are 1, −2 and 1.
      const z = y - 2 * y1 + y2 - c1 * z1 - c2 * z2
      x2 = x1
      x1 = x
      y2 = y1
      y1 = y
      z2 = z1
      z1 = z
      sum += z * z
    }
    state[0] = x1
    state[1] = x2
    state[2] = y1
    state[3] = y2
    state[4] = z1
    state[5] = z2
    return sum
  }
}
