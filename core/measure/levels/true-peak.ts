/** Two of the four phases of the interpolation filter of ITU-R BS.1770-4, Annex 2; the other two are their mirror images. */
const FIRST = [
  0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875,
  -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125,
]
const SECOND = [
  -0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625,
  -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375,
]
const TAPS = FIRST.length

/** No interpolated value can be over the largest sample by more than this. */
const MOST_OVER = Math.max(...[FIRST, SECOND].map((phase) => phase.reduce((sum, tap) => sum + Math.abs(tap), 0)))

/**
 * A phase as its even and its odd part. With E = Σ even·(x[k] + x[11−k]) and O = Σ odd·(x[k] − x[11−k]) the phase gives
 * E + O and its mirror image E − O, so the greater of the two in size is |E| + |O|: half the work for both.
 */
const halves = (phase: readonly number[], sign: 1 | -1) =>
  Float64Array.from({ length: TAPS / 2 }, (_, k) => ((phase[k] as number) + sign * (phase[TAPS - 1 - k] as number)) / 2)
const [EVEN_1, ODD_1, EVEN_2, ODD_2] = [halves(FIRST, 1), halves(FIRST, -1), halves(SECOND, 1), halves(SECOND, -1)]

/** The true peak of one channel, four times oversampled. */
export class TruePeakMeter {
  /** The last samples of the block before, then this block's. */
  private line = new Float64Array(TAPS)
  private highest = 0
  private loudFor = 0

  frames(samples: Float64Array, count: number): void {
    if (this.line.length < count + TAPS) {
      const longer = new Float64Array(count + TAPS)
      longer.set(this.line.subarray(0, TAPS))
      this.line = longer
    }
    const { line } = this
    line.set(count === samples.length ? samples : samples.subarray(0, count), TAPS)
    for (let i = 1; i <= count; i++) {
      const x = line[i + TAPS - 1] as number
      // A stretch too quiet to hold a new maximum is not worked out.
      if ((x < 0 ? -x : x) * MOST_OVER > this.highest) this.loudFor = TAPS
      if (this.loudFor === 0) continue
      this.loudFor--
      const y = interpolated(line, i)
      if (y > this.highest) this.highest = y
    }
    line.copyWithin(0, count, count + TAPS)
  }

  /** So far, but for the few samples that are still in the filter. Linear, 1 for full scale. */
  get soFar(): number {
    return this.highest
  }

  /** The highest is looked for anew from here on; what is still in the filter does not count. */
  forget(): void {
    this.highest = 0
    this.line.fill(0, 0, TAPS)
  }

  /** Linear, 1 for full scale. The tail that is still in the filter is played out with silence. */
  end(): number {
    this.frames(new Float64Array(TAPS), TAPS)
    return this.highest
  }
}

/** The greatest of the four interpolated values, in size, of the samples from a place on. */
function interpolated(line: Float64Array, from: number): number {
  let [e1, o1, e2, o2] = [0, 0, 0, 0]
  for (let k = 0, up = from, down = from + TAPS - 1; k < TAPS / 2; k++, up++, down--) {
    const a = line[up] as number
    const b = line[down] as number
    const sum = a + b
    const off = a - b
    e1 += (EVEN_1[k] as number) * sum
    o1 += (ODD_1[k] as number) * off
    e2 += (EVEN_2[k] as number) * sum
    o2 += (ODD_2[k] as number) * off
  }
  const first = Math.abs(e1) + Math.abs(o1)
  const second = Math.abs(e2) + Math.abs(o2)
  return first > second ? first : second
}
