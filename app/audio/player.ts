/**
 * Plays prepared sounds, one at a time. Sounds come at a safe level and faded; nothing is made louder here. The context is opened by
 * the press that asks for the sound, as browsers want it.
 */
export class Player {
  private context: AudioContext | null = null
  private playing: AudioBufferSourceNode | null = null

  /** The rate at which sounds are to be made. */
  get sampleRate(): number {
    return this.open().sampleRate
  }

  /** @returns when the sound has ended or was stopped */
  async play(channels: readonly Float64Array[]): Promise<void> {
    this.stop()
    const context = this.open()
    await context.resume()
    const length = Math.max(1, ...channels.map((each) => each.length))
    const buffer = context.createBuffer(Math.max(1, channels.length), length, context.sampleRate)
    channels.forEach((samples, i) => buffer.copyToChannel(Float32Array.from(samples), i))
    const source = new AudioBufferSourceNode(context, { buffer })
    source.connect(context.destination)
    this.playing = source
    await new Promise<void>((ended) => {
      source.onended = () => ended()
      source.start()
    })
  }

  stop(): void {
    this.playing?.stop()
    this.playing = null
  }

  /** The first seconds of a recording, one channel. @throws where the browser cannot read it */
  async read(file: Blob, seconds: number): Promise<Float64Array> {
    const decoded = await this.open().decodeAudioData(await file.arrayBuffer())
    const channel = decoded.getChannelData(0)
    return Float64Array.from(channel.subarray(0, Math.round(seconds * decoded.sampleRate)))
  }

  async close(): Promise<void> {
    this.stop()
    await this.context?.close()
    this.context = null
  }

  private open(): AudioContext {
    this.context ??= new AudioContext()
    return this.context
  }
}
