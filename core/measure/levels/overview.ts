/** The level over time, in stretches of equal length: extremes and mean square of each. */
export interface Overview {
  /** Length of a stretch; the last one may be shorter. */
  seconds: number
  low: number[]
  high: number[]
  /** Mean squares. */
  power: number[]
}

/** Stretches that are kept; where there would be more, two become one, so that memory is bounded for any length. */
const MOST = 1200

/** Gathers an overview from stretches of a fixed length, as they come. */
export class OverviewMeter {
  private readonly low: number[] = []
  private readonly high: number[] = []
  private readonly power: number[] = []
  private per = 1
  private waiting = 0

  constructor(private readonly stretchSeconds: number) {}

  add(low: number, high: number, power: number): void {
    if (this.waiting === 0) {
      if (this.low.length === MOST) this.halve()
      this.low.push(low)
      this.high.push(high)
      this.power.push(power)
    } else {
      const last = this.low.length - 1
      this.low[last] = Math.min(this.low[last] as number, low)
      this.high[last] = Math.max(this.high[last] as number, high)
      this.power[last] = ((this.power[last] as number) * this.waiting + power) / (this.waiting + 1)
    }
    this.waiting = (this.waiting + 1) % this.per
  }

  end(): Overview {
    return { seconds: this.per * this.stretchSeconds, low: this.low, high: this.high, power: this.power }
  }

  private halve(): void {
    for (let i = 0; i < MOST / 2; i++) {
      this.low[i] = Math.min(this.low[2 * i] as number, this.low[2 * i + 1] as number)
      this.high[i] = Math.max(this.high[2 * i] as number, this.high[2 * i + 1] as number)
      this.power[i] = ((this.power[2 * i] as number) + (this.power[2 * i + 1] as number)) / 2
    }
    for (const list of [this.low, this.high, this.power]) list.length = MOST / 2
    this.per *= 2
  }
}
