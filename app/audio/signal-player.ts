/** Seconds of the slow start, and of the silence between it and the signal. */
export const SLOW_START = { rises: 1.5, pause: 0.5 } as const

/** Where the slow start begins, under the signal’s own level. */
const FROM = 10 ** (-40 / 20)

/**
 * Plays a test signal through a chosen output: first a stretch of it that rises slowly, so that nothing is loud at once, then a pause,
 * then the signal as it is.
 */
export class SignalPlayer {
  private context: AudioContext | null = null

  /**
   * @param sink an output of the browser’s list; `null` for the system’s own
   * @param begins called in the pause, when the signal is about to come
   * @returns when it has been played, or was stopped
   */
  async play(make: (sampleRate: number) => Float64Array, sink: string | null, begins: () => void): Promise<void> {
    await this.stop()
    // Chromium takes an output by its id; a browser that does not know the key leaves it out.
    const context = new AudioContext({ ...(sink !== null && { sinkId: sink }) } as AudioContextOptions)
    this.context = context
    await context.resume()
    const signal = make(context.sampleRate)
    const rate = context.sampleRate
    const rises = Math.round(SLOW_START.rises * rate)
    const buffer = context.createBuffer(1, rises + Math.round(SLOW_START.pause * rate) + signal.length, rate)
    const samples = buffer.getChannelData(0)
    for (let i = 0; i < rises; i++)
      samples[i] =
        (signal[i % Math.max(1, signal.length)] ?? 0) *
        FROM ** (1 - i / rises) *
        Math.min(1, (rises - i) / (0.02 * rate))
    samples.set(signal, buffer.length - signal.length)
    const source = new AudioBufferSourceNode(context, { buffer })
    source.connect(context.destination)
    await new Promise<void>((ended) => {
      const waiting = setTimeout(begins, 1000 * (SLOW_START.rises + SLOW_START.pause / 2))
      source.onended = () => ended()
      context.onstatechange = () => {
        if (context.state !== 'closed') return
        clearTimeout(waiting)
        ended()
      }
      source.start()
    })
    await this.stop()
  }

  async stop(): Promise<void> {
    const before = this.context
    this.context = null
    if (before && before.state !== 'closed') await before.close()
  }
}
