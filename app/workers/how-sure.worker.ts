import type { Session } from '#core/model'
import { inferReadings } from '#core/soundcheck/infer'
import type { InferredReading } from '#core/soundcheck/inferred'
import { drawsFor, withDrawn } from '#core/uncertainty/intervals'
import type { NextMeasurement } from '#core/uncertainty/next'
import { whatNext } from '#core/uncertainty/next'
import type { Uncertainty } from '#core/uncertainty/uncertainty'
import { propagate, uncertaintyFrom } from '#core/uncertainty/uncertainty'

export interface HowSureTask {
  id: number
  session: Session
}
/** What is told of a task: at once, and again with the intervals of what is curved. */
export type HowSureMessage =
  | { id: number; uncertainty: Uncertainty; next: NextMeasurement[]; readings: InferredReading[] }
  | { id: number; failed: string }

const post = (message: HowSureMessage) => postMessage(message)
const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time))

/** Draws take a part of a second of a core: they are made when nothing was changed for that long, ms. */
const BEFORE_DRAWS = 1500

/** A newer task makes an older one’s draws pointless. */
let newest = 0

async function answer({ id, session }: HowSureTask) {
  const doubts = propagate(session)
  const next = whatNext(doubts)
  const uncertainty = uncertaintyFrom(doubts)
  const readings = inferReadings(doubts)
  post({ id, uncertainty, next, readings })
  const draws = drawsFor(doubts, uncertainty.strips)
  if (!draws) return
  await pause(BEFORE_DRAWS)
  while (!draws.areEnough) {
    await pause(0)
    if (newest !== id) return
    draws.batch()
  }
  post({ id, uncertainty: { ...uncertainty, strips: withDrawn(uncertainty.strips, draws) }, next, readings })
}

self.onmessage = ({ data }: MessageEvent<HowSureTask>) => {
  newest = data.id
  answer(data).catch((error: unknown) =>
    post({ id: data.id, failed: error instanceof Error ? error.message : 'unknown reason' }),
  )
}
