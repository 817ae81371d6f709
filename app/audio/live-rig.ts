import workletUrl from './play-record.worklet.ts?worker&url'
import { NoInput, openTrack } from './live-input'

/** An interface opened for playing and recording at once. */
export interface OpenedRig {
  name: string
  sampleRate: number
  outputs: number
  inputs: number
  /** Tasks go in, recordings come out. */
  port: MessagePort
  close: () => Promise<void>
}

/** More outputs than are looked at for a cable. */
const MOST_OUTPUTS = 8
/** A browser’s audio graph mixes what a device gives to so many channels. */
const MIXED_TO = 2

/**
 * Opens an input and an output in one graph, so that both run on one clock.
 * @param lost called when the input goes
 * @throws NoInput
 */
export async function openRig(device: string | null, sink: string | null, lost: () => void): Promise<OpenedRig> {
  const { track, settings, processed } = await openTrack(device)
  let context: AudioContext | null = null
  const close = async () => {
    track.onended = null
    track.stop()
    if (context && context.state !== 'closed') await context.close()
  }
  try {
    if (processed.length > 0)
      throw new NoInput(
        `The browser could not switch off ${processed.join(' and ')}: a measurement would measure that. Use another browser, or the single procedures with your host.`,
      )
    context = new AudioContext({
      ...(settings.sampleRate && { sampleRate: settings.sampleRate }),
      ...(sink !== null && { sinkId: sink }),
      latencyHint: 'playback',
    } as AudioContextOptions)
    await context.audioWorklet.addModule(workletUrl)
    const outputs = Math.max(1, Math.min(MOST_OUTPUTS, context.destination.maxChannelCount))
    context.destination.channelCount = outputs
    context.destination.channelInterpretation = 'discrete'
    const inputs = Math.min(MIXED_TO, settings.channelCount ?? MIXED_TO)
    const node = new AudioWorkletNode(context, 'play-record', {
      numberOfInputs: 1,
      numberOfOutputs: 1,
      outputChannelCount: [outputs],
      channelCount: inputs,
      channelCountMode: 'explicit',
      channelInterpretation: 'discrete',
    })
    const { port1, port2 } = new MessageChannel()
    node.port.postMessage({ to: port1, inputs }, [port1])
    context
      .createMediaStreamSource(new MediaStream([track]))
      .connect(node)
      .connect(context.destination)
    await context.resume()
    track.onended = lost
    return { name: track.label || 'Input', sampleRate: context.sampleRate, outputs, inputs, port: port2, close }
  } catch (error) {
    await close()
    if (error instanceof NoInput) throw error
    throw new NoInput(
      `The interface could not be opened for playing and recording at once (${error instanceof Error ? error.message : 'unknown reason'}). Choose another output, or close the program that uses it.`,
    )
  }
}
