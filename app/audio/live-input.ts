import workletUrl from './frames.worklet.ts?worker&url'

/** An input that the browser can hand out. */
export interface LiveDevice {
  id: string
  name: string
}

/** What the browser said of the input that it opened. */
export interface OpenedInput {
  name: string
  sampleRate: number
  channels: number
  /** Channels that it has and this browser does not hand out. */
  missing: number
  /** What of its processing could not be switched off, in words: readings are then worth little. */
  processed: string[]
}

/** Something that happened to an open input. */
export type LiveEvent = 'gone' | 'suspended' | 'running' | 'muted' | 'unmuted' | 'rate-changed'

/** An input that cannot be had; the message says why and what to do. */
export class NoInput extends Error {
  override readonly name = 'NoInput'
}

const REASONS: Record<string, string> = {
  NotAllowedError:
    'The browser was not allowed to listen. Allow the microphone for this page in the browser’s own settings, then open the input again; everything else works without it.',
  SecurityError:
    'The browser does not let this page use an input. Open it at localhost or over https, then open the input again.',
  NotFoundError: 'There is no input here. Plug the interface in, check that the system lists it, and open it again.',
  OverconstrainedError: 'That input is gone. Choose another one.',
  NotReadableError:
    'The input cannot be opened: another program may be using it, or its driver failed. Close that program, and open it again.',
  AbortError: 'The input stopped while it was being opened. Open it again.',
}

/** What the browser is asked to leave alone. */
const PROCESSING = {
  echoCancellation: 'echo cancellation',
  noiseSuppression: 'noise suppression',
  autoGainControl: 'automatic gain',
} as const

const isPossible = (): boolean =>
  typeof navigator !== 'undefined' && 'mediaDevices' in navigator && typeof AudioWorkletNode !== 'undefined'

const NOT_POSSIBLE =
  'This browser only opens an input at localhost or over https. Readings can be typed, or taken from a WAV file.'

/** The inputs that there are. Before permission is given a browser tells no names. */
export const liveDevices = (): Promise<LiveDevice[]> => devicesOf('audioinput', 'Input')

/** The outputs that a sound can be sent to by choice; empty where the browser offers none. */
export const liveOutputs = (): Promise<LiveDevice[]> => devicesOf('audiooutput', 'Output')

async function devicesOf(wanted: MediaDeviceKind, name: string): Promise<LiveDevice[]> {
  if (!isPossible()) return []
  const devices = await navigator.mediaDevices.enumerateDevices()
  return devices
    .filter(({ kind, deviceId }) => kind === wanted && deviceId !== '')
    .map(({ deviceId, label }, i) => ({ id: deviceId, name: label || `${name} ${i + 1}` }))
}

/** Calls back when a device comes or goes. @returns how to stop that */
export function onDevices(changed: () => void): () => void {
  if (!isPossible()) return () => {}
  navigator.mediaDevices.addEventListener('devicechange', changed)
  return () => navigator.mediaDevices.removeEventListener('devicechange', changed)
}

/** How often an input is asked for its rate, ms: no event tells of it. */
const LOOK_AT_RATE = 1000

/** An input of this computer, open, with all processing off. Its frames go to a port, and nowhere else. */
export class LiveInput {
  private readonly looking: ReturnType<typeof setInterval>

  private constructor(
    readonly opened: OpenedInput,
    private readonly context: AudioContext,
    private readonly track: MediaStreamTrack,
    tell: (event: LiveEvent) => void,
  ) {
    track.onended = () => tell('gone')
    track.onmute = () => tell('muted')
    track.onunmute = () => tell('unmuted')
    context.onstatechange = () => {
      if (context.state !== 'closed') tell(context.state === 'running' ? 'running' : 'suspended')
    }
    const { sampleRate } = track.getSettings()
    this.looking = setInterval(() => {
      if (track.readyState === 'live' && track.getSettings().sampleRate !== sampleRate) tell('rate-changed')
    }, LOOK_AT_RATE)
  }

  /**
   * @param device its id; `null` for the browser’s default
   * @param to where frames go
   * @throws NoInput
   */
  static async open(device: string | null, to: MessagePort, tell: (event: LiveEvent) => void): Promise<LiveInput> {
    const { track, settings, processed } = await openTrack(device)
    let context: AudioContext | null = null
    try {
      context = new AudioContext({
        ...(settings.sampleRate && { sampleRate: settings.sampleRate }),
        latencyHint: 'playback',
      })
      const channels = settings.channelCount ?? MIXED_TO
      const whole = channels > MIXED_TO ? wholeTrack(track) : null
      if (whole) to.postMessage({ track: whole }, [whole])
      else await throughWorklet(context, track, to)
      await context.resume()
      const opened = {
        name: track.label || 'Input',
        sampleRate: whole ? (settings.sampleRate ?? context.sampleRate) : context.sampleRate,
        channels: whole ? channels : Math.min(channels, MIXED_TO),
        missing: whole ? 0 : Math.max(0, channels - MIXED_TO),
        processed,
      }
      return new LiveInput(opened, context, track, tell)
    } catch (error) {
      track.stop()
      await context?.close()
      throw new NoInput(
        `The input was opened, but gave no sound (${error instanceof Error ? error.message : 'unknown reason'}). Open it again.`,
      )
    }
  }

  /** After the browser suspended it, as it does with a tab that is out of sight for long. */
  resume = (): Promise<void> => this.context.resume()

  async close(): Promise<void> {
    clearInterval(this.looking)
    this.track.onended = this.track.onmute = this.track.onunmute = this.context.onstatechange = null
    this.track.stop()
    if (this.context.state !== 'closed') await this.context.close()
  }
}

/** A browser’s audio graph mixes what a device gives to so many channels. */
const MIXED_TO = 2

/** All channels of a track, past the audio graph; `null` where the browser cannot. */
function wholeTrack(track: MediaStreamTrack): ReadableStream<AudioData> | null {
  const { MediaStreamTrackProcessor } = globalThis as {
    MediaStreamTrackProcessor?: new (of: { track: MediaStreamTrack }) => { readable: ReadableStream<AudioData> }
  }
  return MediaStreamTrackProcessor ? new MediaStreamTrackProcessor({ track }).readable : null
}

async function throughWorklet(context: AudioContext, track: MediaStreamTrack, to: MessagePort): Promise<void> {
  await context.audioWorklet.addModule(workletUrl)
  const node = new AudioWorkletNode(context, 'frames', {
    numberOfInputs: 1,
    numberOfOutputs: 0,
    channelCount: MIXED_TO,
    channelCountMode: 'max',
    channelInterpretation: 'discrete',
  })
  node.port.postMessage({ to }, [to])
  context.createMediaStreamSource(new MediaStream([track])).connect(node)
}

/** A track with all processing off, and what of that the browser could not switch off. @throws NoInput */
export async function openTrack(
  device: string | null,
): Promise<{ track: MediaStreamTrack; settings: MediaTrackSettings; processed: string[] }> {
  if (!isPossible()) throw new NoInput(NOT_POSSIBLE)
  const track = await trackOf(device)
  const settings = track.getSettings()
  return { track, settings, processed: processedBy(settings) }
}

async function trackOf(device: string | null): Promise<MediaStreamTrack> {
  try {
    const stream = await navigator.mediaDevices.getUserMedia({
      audio: {
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
        channelCount: { ideal: MOST_CHANNELS },
        ...(device !== null && { deviceId: { exact: device } }),
      },
    })
    return stream.getAudioTracks()[0] as MediaStreamTrack
  } catch (error) {
    const name = error instanceof Error ? error.name : ''
    throw new NoInput(
      REASONS[name] ??
        `The input cannot be opened (${error instanceof Error ? error.message : 'unknown reason'}). Readings can be typed, or taken from a WAV file.`,
    )
  }
}

/** More channels than any browser hands out. */
const MOST_CHANNELS = 32

const processedBy = (settings: MediaTrackSettings): string[] =>
  Object.entries(PROCESSING).flatMap(([key, words]) => (settings[key as keyof typeof PROCESSING] ? [words] : []))
