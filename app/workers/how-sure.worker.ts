import { chunk } from 'es-toolkit'
import type { Session } from '#core/session'
import { inferReadings } from '#core/soundcheck/infer'
import type { InferredReading } from '#core/soundcheck/inferred'
import { drawsFor, withDrawn } from '#core/uncertainty/intervals'
import type { NextMeasurement } from '#core/uncertainty/next'
import { whatNext } from '#core/uncertainty/next'
import type { UncertainInput } from '#core/uncertainty/input'
import type { UncertainStrip } from '#core/uncertainty/uncertainty'
import { propagate, uncertaintyFrom } from '#core/uncertainty/uncertainty'

export interface HowSureTask {
  id: number
  session: Session
}
/**
 * What is told of a task: strips by slices, since taking over those of a large session at once would hold the page up; then all the
 * rest, with which it is whole. Told at once, and again with the intervals of what is curved.
 */
export type HowSureMessage = { id: number } & (
  | { strips: UncertainStrip[] }
  | { inputs: UncertainInput[]; next: NextMeasurement[]; readings: InferredReading[] }
  | { failed: string }
)

const post = (message: HowSureMessage) => postMessage(message)
const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time))

/** Draws take a part of a second of a core: they are made when nothing was changed for that long, ms. */
const BEFORE_DRAWS = 1500

/** Strips of a slice: the page takes them over in a few milliseconds. */
const SLICE = 6

/** A newer task makes an older one’s draws pointless. */
let newest = 0

async function answer({ id, session }: HowSureTask) {
  const doubts = propagate(session)
  const next = whatNext(doubts)
  const uncertainty = uncertaintyFrom(doubts)
  const readings = inferReadings(doubts)
  const tell = (strips: UncertainStrip[]) => {
    for (const slice of chunk(strips, SLICE)) post({ id, strips: slice })
    post({ id, inputs: uncertainty.inputs, next, readings })
  }
  tell(uncertainty.strips)
  const draws = drawsFor(doubts, uncertainty.strips)
  if (!draws) return
  await pause(BEFORE_DRAWS)
  while (!draws.areEnough) {
    await pause(0)
    if (newest !== id) return
    draws.batch()
  }
  tell(withDrawn(uncertainty.strips, draws))
}

self.onmessage = ({ data }: MessageEvent<HowSureTask>) => {
  newest = data.id
  answer(data).catch((error: unknown) =>
    post({ id: data.id, failed: error instanceof Error ? error.message : 'unknown reason' }),
  )
}
