import type { LevelsPartResult, Share } from '#core/measure/levels/measure-levels'
import { LevelsPartMeter } from '#core/measure/levels/measure-levels'
import type { Measured, Meter } from '#core/measure/meter'
import type { Answers, Question, QuestionKind } from '#core/measure/question'
import { channelKeeper, lagBetween, meterOf } from '#core/measure/question'
import type { Take } from '#core/simulated/record'
import { recordTake } from '#core/simulated/record'

/** The levels of a share of the channels, where several workers take one file. */
export interface LevelsPartQuestion {
  kind: 'levels-part'
  share: Share
}
export type MeasureAnswer = Answers[QuestionKind] | LevelsPartResult

/** A question about a recording, which is a file or is made on the simulated interface first. */
export interface MeasureTask {
  question: Question | LevelsPartQuestion
  recording: Blob | Take
  /** The signal as it was played, where the recording does not hold it: a lag is then measured between the two files. */
  played?: Blob | undefined
}
export type MeasureMessage = { progress: number } | { answer: MeasureAnswer } | { failed: string }

const post = (message: MeasureMessage) => postMessage(message)

/** Progress is told in steps of this part of the file. */
const TELL = 0.01

/** Reads a file piece by piece, so that it is never whole in memory, and tells how far it is. */
async function fed<R>(file: Blob, meter: Meter<R>, from = 0, part = 1): Promise<R> {
  const reader = file.stream().getReader()
  let read = 0
  let told = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    meter.push(value)
    read += value.length
    // A message for every piece would keep the screen busy with nothing but them.
    if (read - told >= TELL * file.size) {
      told = read
      post({ progress: from + (part * read) / file.size })
    }
  }
  return meter.end()
}

async function answer({ question, recording, played }: MeasureTask): Promise<MeasureAnswer> {
  const file = recording instanceof Blob ? recording : new Blob([recordTake(recording)])
  if (question.kind === 'levels-part') return fed(file, new LevelsPartMeter(question.share))
  if (!played || question.kind !== 'loopback') return fed(file, meterOf(question))
  const [sent, got] = [channelKeeper(question.reference), channelKeeper(question.returned)]
  const reference: Measured<{ samples: Float64Array }> = await fed(played, sent, 0, 0.5)
  return lagBetween(reference, await fed(file, got, 0.5, 0.5))
}

self.onmessage = async ({ data }: MessageEvent<MeasureTask>) => {
  try {
    post({ answer: await answer(data) })
  } catch (error) {
    post({ failed: error instanceof Error ? error.message : 'unknown reason' })
  }
}
