/** Counts what may be sent: so many a second on average, and as many at once. */
export class Rate {
  private left: number
  private then: number

  /** @param now ms */
  constructor(
    private readonly perSecond: number,
    now: number,
  ) {
    this.left = perSecond
    this.then = now
  }

  /** Takes one, if there is one left. */
  takes(now: number): boolean {
    this.left = Math.min(this.perSecond, this.left + ((now - this.then) / 1000) * this.perSecond)
    this.then = now
    if (this.left < 1) return false
    this.left--
    return true
  }

  /** ms until there is one. */
  wait(now: number): number {
    const left = Math.min(this.perSecond, this.left + ((now - this.then) / 1000) * this.perSecond)
    return left >= 1 ? 0 : Math.ceil(((1 - left) / this.perSecond) * 1000)
  }
}
