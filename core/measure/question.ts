import type { Balance } from './balance'
import { measureBalance } from './balance'
import { ChannelsMeter } from './channels-meter'
import type { Heard } from './heard/listen'
import { listenTo } from './heard/listen'
import type { LevelsResult } from './levels/measure-levels'
import { LevelsMeter } from './levels/measure-levels'
import type { Loopback } from './loopback'
import { LOOPBACK_FRAMES, between, loopbackMeter } from './loopback-meter'
import type { Measured, Meter } from './meter'
import type { Noise } from './noise'
import { measureNoise } from './noise'
import type { Plateau } from './plateaus'
import { measurePlateaus } from './plateaus'
import type { StretchSpectrum } from './stretch-spectrum'
import { measureSpectrum } from './stretch-spectrum'
import type { Tone } from './tone'
import { measureTone } from './tone'

/** What can be asked of a recording. Channels are counted from 1. */
export type Question =
  | { kind: 'levels' }
  | { kind: 'tone'; channel: number }
  | { kind: 'plateaus'; channel: number }
  | { kind: 'noise'; channel: number }
  | { kind: 'balance'; first: number; second: number }
  | { kind: 'loopback'; reference: number; returned: number }
  | { kind: 'heard' }
  | { kind: 'spectrum'; channel: number; fromSeconds: number; seconds: number }

export interface Answers {
  levels: LevelsResult
  tone: Measured<Tone>
  plateaus: Measured<{ plateaus: Plateau[] }>
  noise: Measured<Noise>
  balance: Measured<Balance>
  loopback: Measured<Loopback>
  heard: Measured<Heard>
  spectrum: Measured<StretchSpectrum>
}
export type QuestionKind = Question['kind']

/** The meter that answers a question. */
export function meterOf(question: Question): Meter<Answers[QuestionKind]> {
  switch (question.kind) {
    case 'levels':
      return new LevelsMeter()
    case 'tone':
      return ofOne(question.channel, measureTone)
    case 'plateaus':
      return ofOne(question.channel, measurePlateaus)
    case 'noise':
      return ofOne(question.channel, measureNoise)
    case 'balance':
      return new ChannelsMeter({ channels: [question.first, question.second] }, ([a, b], rate) =>
        measureBalance(a ?? NONE, b ?? NONE, rate),
      )
    case 'loopback':
      return loopbackMeter(question.reference, question.returned)
    case 'heard':
      return new ChannelsMeter({ channels: [1, 2], asManyAsThere: true, mostFrames: HEARD_FRAMES }, listenTo)
    case 'spectrum':
      return new ChannelsMeter(
        { channels: [question.channel], fromSeconds: question.fromSeconds, seconds: question.seconds },
        ([samples], rate) => measureSpectrum(samples ?? NONE, rate),
      )
  }
}

/** A minute and a half at 48 kHz of what is wrong says all that a longer one would. */
const HEARD_FRAMES = 2 ** 22

const NONE = new Float64Array(0)
const ofOne = <T extends object>(
  channel: number,
  measure: (samples: Float64Array, sampleRate: number) => T | { code: string; message: string },
) => new ChannelsMeter<T>({ channels: [channel] }, ([samples], rate) => measure(samples ?? NONE, rate))

/** One channel of a file, as samples: the played signal of a loopback whose recording does not hold it. */
export const channelKeeper = (channel: number) =>
  new ChannelsMeter<{ samples: Float64Array }>({ channels: [channel], mostFrames: LOOPBACK_FRAMES }, ([samples]) => ({
    samples: samples ?? NONE,
  }))

/** The lag between the signal that was played, from a file of its own, and what came back. */
export function lagBetween(
  played: Measured<{ samples: Float64Array }>,
  recorded: Measured<{ samples: Float64Array }>,
): Measured<Loopback> {
  if (!played.ok) return played
  if (!recorded.ok) return recorded
  if (played.sampleRate !== recorded.sampleRate)
    return {
      ok: false,
      fault: {
        code: 'rates-differ',
        message: `What was played has ${played.sampleRate} Hz and what was recorded ${recorded.sampleRate} Hz. Record at the rate of the signal.`,
      },
    }
  const found = between(played.found.samples, recorded.found.samples, played.sampleRate)
  if ('code' in found) return { ok: false, fault: found }
  return { ok: true, found, sampleRate: played.sampleRate, remarks: [...played.remarks, ...recorded.remarks] }
}
