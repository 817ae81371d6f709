import type { Change } from '../edits'
import type { Gear } from '../gear'
import { isElectricSource, isProcessor } from '../gear'
import type { Monitor, System } from '../model'
import type { Session } from '../session'
import { applyChanges, editStrip } from '../edits'

/**
 * A change that fixes: of settings and strips, of how a performer listens, of the system, or of what is set on a box itself. What is
 * `unset` is taken out.
 */
export type FixChange = Change | OwnChange
export interface MonitorChange {
  do: 'monitor'
  strip: string
  set: Partial<Monitor>
  unset?: readonly (keyof Monitor)[]
}
export interface SystemChange {
  do: 'system'
  set: Partial<System>
}
/** An instrument’s own volume, dB taken off. */
export interface VolumeChange {
  do: 'volume'
  gear: string
  loss: number
}
/** A section of a processor switched in or out. */
export interface SectionChange {
  do: 'section'
  gear: string
  section: number
  on: boolean
}
type OwnChange = MonitorChange | SystemChange | VolumeChange | SectionChange

const OWN: ReadonlySet<string> = new Set<OwnChange['do']>(['monitor', 'system', 'volume', 'section'])
const isOwn = (change: FixChange): change is OwnChange => 'do' in change && OWN.has(change.do)

/** The session with all of it changed. */
export function applyFix(session: Session, changes: readonly FixChange[]): Session {
  const settings = changes.filter((change): change is Change => !isOwn(change))
  return changes.filter(isOwn).reduce(applyOne, applyChanges(session, settings))
}

function applyOne(session: Session, change: OwnChange): Session {
  switch (change.do) {
    case 'system':
      return { ...session, system: { ...session.system, ...change.set } }
    case 'monitor':
      return editStrip(session, change.strip, (strip) => {
        const gone = new Set<string>(change.unset)
        const kept = Object.fromEntries(Object.entries(strip.monitor).filter(([key]) => !gone.has(key))) as Monitor
        return { ...strip, monitor: { ...kept, ...change.set } }
      })
    case 'volume':
      return withGear(session, change.gear, (item) =>
        isElectricSource(item)
          ? ({ ...item, specs: { ...item.specs, ...volumeAs(item.specs, change.loss) } } as Gear)
          : item,
      )
    case 'section':
      return withGear(session, change.gear, (item) =>
        isProcessor(item)
          ? {
              ...item,
              blocks: item.blocks.map((block, i) => (i === change.section ? { ...block, on: change.on } : block)),
            }
          : item,
      )
  }
}

/** An instrument’s volume with so much taken off: as a position of its pot where that is described. */
const volumeAs = (
  { volumePot, impedance = 0 }: { volumePot?: number | undefined; impedance?: number },
  loss: number,
) =>
  volumePot === undefined
    ? { volumeLoss: loss }
    : { volumeAt: Math.min(1, Math.max(0.001, (10 ** (-loss / 20) * (volumePot + impedance)) / volumePot)) }

const withGear = (session: Session, id: string, change: (item: Gear) => Gear): Session => ({
  ...session,
  gear: session.gear.map((item) => (item.id === id ? change(item) : item)),
})
