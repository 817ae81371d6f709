import type { Point } from '../chain/cascade'
import { leastStep } from '../checks/trial'
import type { GainControl } from '../chain/gain-control'
import { restingGain } from '../chain/gain-control'
import { arrivingAt, cascadeStrip } from '../chain/graph'
import { hasRoom } from '../chain/reserve'
import { gainGrid } from '../chain/settable-gain'
import { copied } from '../chain/signal'
import { sumSignals } from '../chain/sum'
import { SUM_RESERVE } from '../evaluation/bus-findings'
import type { Session } from '../session'
import type { Strip } from '../model'
import { formatDecimal } from '../units'
import type { Allocation, Limit } from './allocate'
import { allocate, highestStep } from './allocate'
import type { Planned } from './plan-strip'
import { TriedGains } from './tried-gains'

/**
 * What a bus is to be set to: group faders and masters at their zero marks, an interface behind the desk to the target by the likely
 * peak of the sum. What clips even so is cured by the bus's own faders; where those do not reach, or where the strips together leave less
 * than 6 dB, which of them to bring down, and how far, is said: the mix is for its faders, and no gain is touched for it.
 */
export function planBus(session: Session, bus: Strip): Planned {
  const allocation = withRoom(session, atRest(session, bus))
  return {
    allocation,
    hiss: null,
    notes: [...tooMany(session, bus, allocation), ...stillOver(session, bus, allocation)],
  }
}

/** Whether a stage of a bus has the room that it should have: in analogue 6 dB over the likely peak, and the surge fits everywhere. */
const isRoomy = ({ unit, headroom, surgeHeadroom }: Point): boolean =>
  (headroom ?? Infinity) >= (unit === 'dBu' ? SUM_RESERVE : 0) - 1e-6 && (surgeHeadroom ?? Infinity) >= -1e-6

/** The own faders of a bus brought down where a stage of it would clip, as little as gives that stage its room. */
function withRoom(session: Session, allocation: Allocation): Allocation {
  const tried = new TriedGains(session, allocation.strip)
  const limits = new Map<number, Limit>()
  allocation.points.forEach((_, i) => {
    const clips = (point: Point | undefined) =>
      point !== undefined && point.unit !== 'dBSPL' && !hasRoom(point) && tried.stages[i]?.driven !== true
    if (!clips(tried.points()[i])) return
    const faders = tried.controls.filter((each) => each.isFader && !each.locked && tried.indexOf(each) <= i).reverse()
    for (const fader of faders) {
      const [grid, from] = [gainGrid(fader.range), tried.get(fader)]
      const { step } = highestStep(0, grid.below(from), (each) => {
        tried.set(fader, grid.at(each))
        return isRoomy(tried.points()[i] as Point) ? null : { by: 'lowest' }
      })
      tried.set(fader, step === null ? from : grid.at(step))
      if (step === null) continue
      limits.set(tried.controls.indexOf(fader), { by: 'headroom', stage: tried.stages[i]?.id ?? '' })
      return
    }
  })
  if (limits.size === 0) return allocation
  return {
    ...allocation,
    strip: tried.strip(),
    points: tried.points(),
    allotments: allocation.allotments.map((each, k) => {
      const limit = limits.get(k)
      return limit ? { ...each, value: tried.get(tried.controls[k] as GainControl), limit } : each
    }),
  }
}

/** Which stage of a bus clips whatever its own faders do, and by how much what flows in has to come down. */
function stillOver(session: Session, bus: Strip, { points, stages, strip }: Allocation): string[] {
  const at = points.findIndex((point, i) => i > 0 && point.unit !== 'dBSPL' && !hasRoom(point) && !stages[i]?.driven)
  const first = points[0]
  const digital = first && first.unit === 'dBFS' && !hasRoom(first) ? 0 : -1
  const i = at >= 0 ? at : digital
  const point = points[i]
  if (!point) return []
  const arriving = arrivingAt(session, bus)
  const over = Math.max(0, -(point.headroom ?? 0))
  const surge = Math.max(0, -(point.surgeHeadroom ?? 0))
  const less = leastStep(
    600,
    (tenths) => {
      const lower = arriving.map((each) => copied(each, -tenths / 10))
      const found = cascadeStrip(strip, stages, session, lower).points[i]
      return found !== undefined && hasRoom(found)
    },
    0.1,
  )
  const what =
    over > 0
      ? `${formatDecimal(over, 1)} dB over at the likely peak`
      : `${formatDecimal(surge, 1)} dB over with the surge`
  return [
    `“${stages[i]?.gear.name ?? ''}” of ${bus.name} is ${what}. ${less === null ? 'Turn its feeds down until it fits.' : `Bring its sends down by at least ${formatDecimal(less, 1)} dB.`}`,
  ]
}

/**
 * The faders at their marks and, where a converter stands behind them, its gain by the target. Only where the converter would clip
 * even so are the faders brought down.
 */
function atRest(session: Session, bus: Strip): Allocation {
  const { strip, moved } = restedFaders(session, bus)
  const held = {
    ...strip,
    stages: strip.stages.map((stage) => (moved.has(stage.id) ? { ...stage, locked: FADERS } : stage)),
  }
  const allocation = allocate(session, held)
  const { place, points } = allocation
  if (place && (points[place.index]?.headroom ?? 0) < 0) return allocate(session, strip)
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
function restedFaders(session: Session, bus: Strip) {
  const moved = new Set<string>()
  const settings = allocate(session, bus).allotments.filter(
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
function tooMany(session: Session, bus: Strip, { points }: Allocation): string[] {
  const arriving = arrivingAt(session, bus)
  const point = points[0]
  if (arriving.length === 0 || !point || point.unit === 'dBFS' || point.headroom === null) return []
  const missing = SUM_RESERVE - point.headroom
  if (missing <= 0) return []
  const { sum } = sumSignals(bus, arriving)
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
    if (sumSignals(bus, less).sum.likely <= wanted) return by
  }
  return null
}
