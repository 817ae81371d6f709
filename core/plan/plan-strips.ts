import { feedOrder } from '../chain/graph'
import type { Session } from '../session'
import { isBus } from '../model'
import { planBus } from './plan-bus'
import { pairedAlike } from './pairs'
import type { Planned } from './plan-strip'
import { planStrip } from './plan-strip'

/**
 * The plans of all strips: the channels first, each to its target and those of a stereo pair alike, then the busses in the order of
 * the signal, with what is planned before them.
 */
export function planStrips(session: Session): Planned[] {
  const channels = session.strips.filter((strip) => !isBus(strip))
  const busses = feedOrder(session.strips).filter(isBus)
  const apart = {
    ...session,
    pairs: session.pairs?.filter(({ left, right }) =>
      [left, right].every((id) => channels.some((strip) => strip.id === id)),
    ),
  }
  const planned = new Map(
    pairedAlike(
      { ...apart, strips: channels },
      channels.map((strip) => planStrip(session, strip)),
    ).map((plan, i) => [channels[i]?.id, plan]),
  )
  let soFar = withStrips(session, planned)
  for (const bus of busses) {
    planned.set(bus.id, planBus(soFar, bus))
    soFar = withStrips(session, planned)
  }
  return session.strips.map((strip) => planned.get(strip.id) as Planned)
}

/** The session with what is planned so far. */
const withStrips = (session: Session, planned: ReadonlyMap<string | undefined, Planned>): Session => ({
  ...session,
  strips: session.strips.map((strip) => planned.get(strip.id)?.allocation.strip ?? strip),
})
