import type { Session } from '#core/session'
import { drawsFor, hasCurved, stripWithIntervals } from '#core/uncertainty/intervals'
import type { Surer } from '#core/uncertainty/next'
import { whatNext } from '#core/uncertainty/next'
import type { Uncertainty } from '#core/uncertainty/uncertainty'
import { doubtsOf, uncertaintyFrom } from '#core/uncertainty/uncertainty'

export interface HowSureTask {
  id: number
  session: Session
}
/** What is told of a task: at once, and again with the intervals of what is curved. */
export type HowSureMessage = { id: number; uncertainty: Uncertainty; next: Surer[] } | { id: number; failed: string }

const post = (message: HowSureMessage) => postMessage(message)
const breath = () => new Promise((resolve) => setTimeout(resolve))

/** A newer task makes an older one’s draws pointless. */
let newest = 0

async function answer({ id, session }: HowSureTask) {
  const doubts = doubtsOf(session)
  const next = whatNext(doubts)
  const uncertainty = uncertaintyFrom(doubts)
  post({ id, uncertainty, next })
  const strips = []
  const draws = drawsFor(doubts, uncertainty.strips)
  for (const strip of uncertainty.strips) {
    await breath()
    if (newest !== id) return
    strips.push(stripWithIntervals(doubts, strip, draws))
  }
  if (uncertainty.strips.some(hasCurved)) post({ id, uncertainty: { ...uncertainty, strips }, next })
}

self.onmessage = ({ data }: MessageEvent<HowSureTask>) => {
  newest = data.id
  answer(data).catch((error: unknown) =>
    post({ id: data.id, failed: error instanceof Error ? error.message : 'unknown reason' }),
  )
}
