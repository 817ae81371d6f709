import { arrivingAt } from '../chain/graph'
import { copied } from '../chain/signal'
import { meet } from '../chain/sum'
import { SUM_RESERVE } from '../evaluation/bus-findings'
import type { Gear, Session, Strip } from '../session'
import { formatDecimal } from '../units'
import type { Allocation } from './allocate'
import { allocate } from './allocate'
import { restingGain } from '../chain/gain-control'
import type { Planned } from './plan-strip'

/**
 * What a bus is to be set to: group faders and masters at their zero marks, an interface behind the desk to the target by the likely
 * peak of the sum. Where the strips together leave less than 6 dB, which of them to bring down, and how far, is said: the mix is
 * for its faders, and no gain is touched for it.
 */
export function planBus(session: Session, bus: Strip, gear: ReadonlyMap<string, Gear>): Planned {
  const allocation = atRest(session, bus, gear)
  return { allocation, hiss: null, notes: tooMany(session, bus, gear, allocation) }
}

/**
 * The faders at their marks and, where a converter stands behind them, its gain by the target. Only where the converter would clip
 * even so are the faders brought down.
 */
function atRest(session: Session, bus: Strip, gear: ReadonlyMap<string, Gear>): Allocation {
  const { strip, moved } = restedFaders(session, bus, gear)
  const held = {
    ...strip,
    stages: strip.stages.map((stage) => (moved.has(stage.id) ? { ...stage, locked: FADERS } : stage)),
  }
  const allocation = allocate(session, held, gear)
  const { place, points } = allocation
  if (place && (points[place.index]?.headroom ?? 0) < 0) return allocate(session, strip, gear)
  return {
    ...allocation,
    strip: {
      ...allocation.strip,
      stages: allocation.strip.stages.map((stage, i) => ({ ...stage, locked: bus.stages[i]?.locked })),
    },
    allotments: allocation.allotments.map((each) =>
      moved.has(each.control.stage) ? { ...each, limit: { by: 'zero mark' } } : each,
    ),
  }
}

const FADERS: ('gain' | 'fader')[] = ['gain', 'fader']

/** A bus with its desk faders at their zero marks, save locked ones; a stream's and a loudspeaker's own controls stay. */
function restedFaders(session: Session, bus: Strip, gear: ReadonlyMap<string, Gear>) {
  const moved = new Set<string>()
  const settings = allocate(session, bus, gear).allotments.filter(
    ({ control }) => control.isFader && control.domain === 'analogue' && !control.locked,
  )
  const stages = bus.stages.map((stage) => {
    const own = settings.filter(({ control }) => control.stage === stage.id)
    if (own.length === 0) return stage
    moved.add(stage.id)
    const set = Object.fromEntries(own.map(({ control }) => [control.setting, restingGain(control)]))
    return { ...stage, settings: { ...stage.settings, ...set } }
  })
  return { strip: { ...bus, stages }, moved }
}

/** Which strip to bring down where the sum has less room than it should: the loudest, as far as helps. */
function tooMany(session: Session, bus: Strip, gear: ReadonlyMap<string, Gear>, { points }: Allocation): string[] {
  const arriving = arrivingAt(session, bus, gear)
  const point = points[0]
  if (arriving.length === 0 || !point || point.unit === 'dBFS' || point.headroom === null) return []
  const missing = SUM_RESERVE - point.headroom
  if (missing <= 0) return []
  const { sum } = meet(bus, arriving)
  const name = (id: string | undefined) => session.strips.find((strip) => strip.id === id)?.name ?? ''
  const [loudest] = sum.brought
  const alone = loudest && lowestOf(loudest.strip, arriving, bus, sum.likely - missing)
  const words = `Together they leave ${formatDecimal(point.headroom, 1)} dB where they meet; ${SUM_RESERVE} are wanted.`
  return [
    alone === null || alone === undefined
      ? `${words} No strip alone is the cause: bring all ${arriving.length} down by ${formatDecimal(Math.ceil(missing), 0)} dB.`
      : `${words} Bring “${name(loudest?.strip)}” down by ${formatDecimal(alone, 1)} dB.`,
  ]
}

/** How far down one strip has to go for the likely peak to be at a level, up to 12 dB; `null` where it alone does not do it. */
function lowestOf(strip: string, arriving: ReturnType<typeof arrivingAt>, bus: Strip, wanted: number): number | null {
  for (let by = 0.5; by <= 12; by += 0.5) {
    const less = arriving.map((each) => (each.strip === strip ? copied(each, -by) : each))
    if (meet(bus, less).sum.likely <= wanted) return by
  }
  return null
}
