import type { Gear, Session } from '../session'
import { pairedAlike } from './pairs'
import type { Planned } from './plan-strip'
import { planStrip } from './plan-strip'

/** The plans of all strips, those of a stereo pair set alike. */
export const planStrips = (session: Session, gear: ReadonlyMap<string, Gear>): Planned[] =>
  pairedAlike(
    session,
    gear,
    session.strips.map((strip) => planStrip(session, strip, gear)),
  )
