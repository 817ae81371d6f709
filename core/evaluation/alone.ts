import type { Session } from '../session'
import type { Strip } from '../model'
import { isBus } from '../model'
import type { Evaluation, StripEvaluation } from './evaluate-session'

/** A session in which only one strip is looked at: by itself, or – a bus – with all that can lead to it. */
export const alone = (session: Session, strip: Strip): Session => ({
  ...session,
  strips: isBus(strip) ? session.strips.map((each) => (each.id === strip.id ? strip : each)) : [strip],
  pairs: undefined,
})

export const ofStrip = ({ strips }: Evaluation, id: string): StripEvaluation | undefined =>
  strips.find((each) => each.id === id)
