import { ChannelsMeter } from './channels-meter'
import type { Loopback } from './loopback'
import { measureLoopback } from './loopback'
import type { WavFault } from './wav/format'

const SILENT: WavFault = {
  code: 'silent',
  message:
    'The reference or the return is silent: there is no lag to be found. Check the cable and the channel numbers.',
}

/** So much of a recording is looked at: 22 s at 48 kHz. A correlation takes eight times the memory of what is correlated. */
export const LOOPBACK_FRAMES = 2 ** 20

/** Measures the lag between two channels of a WAV file, counted from 1, as it comes. */
export const loopbackMeter = (reference: number, returned: number) =>
  new ChannelsMeter<Loopback>(
    { channels: [reference, returned], mostFrames: LOOPBACK_FRAMES },
    ([sent, got], sampleRate) => between(sent, got, sampleRate),
  )

/** The lag between two stretches of samples, or why there is none. */
export const between = (
  sent: Float64Array | undefined,
  got: Float64Array | undefined,
  sampleRate: number,
): Loopback | WavFault => (sent && got && measureLoopback(sent, got, sampleRate)) ?? SILENT
