/** Four phases of the interpolation filter of ITU-R BS.1770-4, Annex 2 (the last two mirror the first two). */
const FIRST = [0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875, -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125]
const SECOND = [-0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625, -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375]
const PHASES = [FIRST, SECOND, [...SECOND].reverse(), [...FIRST].reverse()].map((phase) => Float64Array.from(phase))
const TAPS = FIRST.length

/** No interpolated value can be over the largest sample by more than this. */
const MOST_OVER = Math.max(...PHASES.map((phase) => phase.reduce((sum, tap) => sum + Math.abs(tap), 0)))

/** The true peak of one channel, four times oversampled. */
export class TruePeakMeter {
  /** The last samples, twice over, so that a window is always in one piece. */
  private readonly ring = new Float64Array(2 * TAPS)
  private at = 0
  private highest = 0
  private loudFor = 0

  frames(samples: Float64Array, count: number): void {
    for (let i = 0; i < count; i++) this.next(samples[i] as number)
  }

  /** Linear, 1 for full scale. The tail that is still in the filter is played out with silence. */
  end(): number {
    for (let i = 0; i < TAPS; i++) this.next(0)
    return this.highest
  }

  private next(x: number): void {
    this.at = this.at === 0 ? TAPS - 1 : this.at - 1
    this.ring[this.at] = x
    this.ring[this.at + TAPS] = x
    // A window too quiet to hold a new maximum is not worked out.
    if (Math.abs(x) * MOST_OVER > this.highest) this.loudFor = TAPS
    if (this.loudFor === 0) return
    this.loudFor--
    for (const phase of PHASES) {
      let y = 0
      for (let k = 0; k < TAPS; k++) y += (phase[k] as number) * (this.ring[this.at + k] as number)
      if (y < 0) y = -y
      if (y > this.highest) this.highest = y
    }
  }
}
