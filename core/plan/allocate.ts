import type { Point } from '../chain/cascade'
import type { GainControl } from '../chain/gain-control'
import { restingGain } from '../chain/gain-control'
import type { ResolvedStage } from '../gear/stage'
import { gainGrid } from '../chain/settable-gain'
import type { ReadingPlace } from '../chain/target-window'
import { readingPlace, windowError } from '../chain/target-window'
import { hasReserve, hasRoom } from '../chain/reserve'
import type { DynamicAim } from '../chain/dynamics'
import { windowOf } from '../uncertainty/window'
import type { Session } from '../session'
import type { Strip, TargetWindow } from '../model'
import type { Reserve } from './reserve'
import { floorsOf, reserveFor, tightStage } from './reserve'
import type { Stretch } from './stretch'
import { stretchesOf } from './stretch'
import { TriedGains } from './tried-gains'
import { SAME_DB } from '../units'

/** What kept a gain from being set higher, or moved at all. */
export type Limit =
  | { by: 'target' | 'highest' | 'lowest' | 'locked' | 'zero mark' | 'left' | 'driven' | 'partner' }
  | { by: 'headroom' | 'held'; stage: string }
  /** The stage is to take off what is wanted, or to be reached by the programme. */
  | { by: 'into'; stage: string; aim: DynamicAim }

export interface Allotment {
  control: GainControl
  value: number
  limit: Limit
}

export interface Allocation {
  allotments: Allotment[]
  /** The strip with these gains. */
  strip: Strip
  stages: readonly ResolvedStage[]
  points: Point[]
  window: TargetWindow
  /** Where the target is read; `null` for a strip that reaches no recorder, whose gains stay. */
  place: ReadingPlace | null
}

type Way = 'forwards' | 'backwards'

/**
 * Shares the gain out over a strip's controls, so that the target reads what it aims at where it is read.
 *
 * In each stretch of the strip every gain in turn – forwards from the source – is raised as far as its range, the reserve
 * of headroom at every stage behind it and the stretch's end allow, while those after it are fully down. So the level
 * behind every gain is the highest that any allowed sharing gives, what follows adds the least noise, and no sharing of
 * the same total is quieter. Backwards is the careless way: everything at the last gain.
 *
 * Faders rest at their zero mark, and are moved only where the gains alone do not reach, or where they overdrive what stands behind
 * them. What stands behind the place of reading is for the mix, and stays; only the operating system's slider is put where it does
 * nothing, and a host fader above its zero mark back to it where it holds the converter down.
 */
export function allocate(session: Session, strip: Strip, way: Way = 'forwards'): Allocation {
  const first = attempt(session, strip, way, false)
  if (!first.heldBehind) return first.allocation
  const second = attempt(session, strip, way, true)
  return Math.abs(offOf(second.allocation)) < Math.abs(offOf(first.allocation)) || clipsBehind(first.allocation)
    ? second.allocation
    : first.allocation
}

const offOf = ({ points, place, window }: Allocation): number => {
  const point = place && points[place.index]
  return point ? windowError(point, place, window) : 0
}

/** Whether something in numbers clips behind the place where the target is read. */
const clipsBehind = ({ points, place }: Allocation): boolean =>
  place !== null && points.some((point, i) => i > place.index && point.unit === 'dBFS' && point.clipped)

/**
 * One sharing out of the gains.
 * @param rested whether faders in the host that stand above their zero mark, behind the converter, are brought back to it: up there they
 *   hold the converter down
 */
function attempt(
  session: Session,
  strip: Strip,
  way: Way,
  rested: boolean,
): { allocation: Allocation; heldBehind: boolean } {
  const tried = new TriedGains(session, strip)
  const window = windowOf(session, strip, tried.stages)
  const found = readingPlace(tried.stages, window)
  // A bus that nothing feeds has no level to read.
  const place = found && tried.points()[found.index] ? found : null
  const limits = new Map<GainControl, Limit>()
  const reserve = reserveFor(session, window)
  const raised = place ? tried.controls.filter((each) => isRaisedBehind(tried, each, place)) : []
  if (place) {
    const now = tried.points()
    const stretches = stretchesOf(tried, place, window, now)
    for (const { gains, faders } of stretches)
      for (const control of [...gains, ...faders]) tried.set(control, restOf(control))
    for (const slider of tried.controls) if (isIdleSlider(slider, place)) tried.set(slider, 0)
    if (rested)
      for (const fader of raised) {
        tried.set(fader, restingGain(fader))
        limits.set(fader, { by: 'zero mark' })
      }
    for (const stretch of stretches) settle({ tried, stretch, now, limits, reserve, place }, way)
  }
  const allocation = {
    allotments: tried.controls.map((control) => ({
      control,
      value: tried.get(control),
      limit: limits.get(control) ?? stillness(control, tried),
    })),
    strip: tried.strip(),
    stages: tried.stages,
    points: tried.points(),
    window,
    place,
  }
  return { allocation, heldBehind: raised.length > 0 && (offOf(allocation) < 0 || clipsBehind(allocation)) }
}

/** A fader in the host, behind the place where the target is read, that stands above its zero mark and is free. */
const isRaisedBehind = (tried: TriedGains, control: GainControl, place: ReadingPlace): boolean =>
  control.domain === 'digital' &&
  control.isFader &&
  !control.isSystemSlider &&
  !control.locked &&
  tried.indexOf(control) > place.index &&
  control.value > restingGain(control)

/** Gains fully down, faders at their zero mark. */
const restOf = (control: GainControl): number =>
  control.isFader && control.domain === 'analogue' ? restingGain(control) : control.range.gainMin

/** The operating system's slider behind a converter: a gain that ought to do nothing. */
const isIdleSlider = ({ isSystemSlider, locked, range }: GainControl, { meter }: ReadingPlace): boolean =>
  isSystemSlider && !locked && meter !== 'file' && range.gainMin <= 0 && range.gainMax >= 0

function stillness(control: GainControl, tried: TriedGains): Limit {
  if (control.locked) return { by: 'locked' }
  if (control.isSystemSlider) return { by: 'zero mark' }
  return tried.stages[tried.indexOf(control)]?.driven ? { by: 'driven' } : { by: 'left' }
}

/** One stretch while its gains are shared out. */
interface Settling {
  readonly tried: TriedGains
  readonly stretch: Stretch
  readonly now: Point[]
  readonly limits: Map<GainControl, Limit>
  readonly reserve: Reserve
  readonly place: ReadingPlace
}

/** Brings the end of a stretch to what is wanted there: by its gains, and where they do not reach by its faders. */
function settle(settling: Settling, way: Way): void {
  const { tried, stretch, limits } = settling
  const { gains, faders } = stretch
  const lowered = new Set(faders.filter((fader) => makeRoom(settling, fader)))
  for (const control of way === 'forwards' ? gains : [...gains].reverse()) raise(settling, control)
  if (stretch.misses(tried.points()) < 0) stepOver(settling)
  for (const fader of faders) {
    // One that had to make room keeps the whole reserve, also towards a compressor or limiter that the level no longer reaches.
    if (stretch.misses(tried.points()) < 0) raise(settling, fader, lowered.has(fader) ? null : settling.now)
    else if (!limits.has(fader)) limits.set(fader, { by: 'zero mark' })
  }
  for (const fader of [...faders].reverse()) {
    if (stretch.misses(tried.points()) > 0) lower(settling, fader)
  }
}

/**
 * A fader at its zero mark that overdrives what stands behind it – a link, an inline preamp – with every gain fully down is brought down
 * until that has its reserve: no gain behind it undoes clipping.
 * @returns whether it was brought down
 */
function makeRoom({ tried, limits, place }: Settling, fader: GainControl): boolean {
  const from = tried.indexOf(fader)
  const isBehind = (i: number) => i >= from && i < place.index && tried.stages[i]?.driven !== true
  const clipping = tried
    .points()
    .flatMap((point, i) => (isBehind(i) && point.unit === 'dBu' && !hasRoom(point) ? [i] : []))
  const [first] = clipping
  if (first === undefined) return false
  const grid = gainGrid(fader.range)
  const { step } = highestStep(0, grid.below(tried.get(fader)), (each): Limit | null => {
    tried.set(fader, grid.at(each))
    const points = tried.points()
    return clipping.every((i) => hasReserve(points[i] as Point)) ? null : { by: 'lowest' }
  })
  tried.set(fader, step === null ? restOf(fader) : grid.at(step))
  if (step !== null) limits.set(fader, { by: 'headroom', stage: tried.stages[first]?.id ?? '' })
  return step !== null
}

function endOf({ held, aim }: Stretch): Limit {
  if (held === null) return { by: 'target' }
  return aim ? { by: 'into', stage: held, aim } : { by: 'held', stage: held }
}

/** @param now levels as they were, which a stretch that ends at what holds its level may keep */
const floorsIn = ({ tried, stretch, reserve }: Settling, now: Point[] | null) =>
  floorsOf(tried.stages, tried.points(), stretch.held === null || stretch.aim ? null : now, reserve)

/** What is in the way of a control at a value. */
function obstacle(
  { tried, stretch }: Settling,
  control: GainControl,
  value: number,
  floors: ReturnType<typeof floorsOf>,
): Limit | null {
  tried.set(control, value)
  const points = tried.points()
  const tight = tightStage(points, floors, tried.indexOf(control))
  if (tight !== null) return { by: 'headroom', stage: tight }
  return stretch.error(points) > SAME_DB ? endOf(stretch) : null
}

/** Raises a control from where it stands, as far as nothing is in the way. */
function raise(settling: Settling, control: GainControl, now: Point[] | null = settling.now): void {
  const { tried, limits } = settling
  const grid = gainGrid(control.range)
  const from = tried.get(control)
  const floors = floorsIn(settling, now)
  const { step, limit } = highestStep(grid.below(from), grid.last, (each) =>
    obstacle(settling, control, grid.at(each), floors),
  )
  tried.set(control, step === null ? from : grid.at(step))
  limits.set(control, limit)
}

/** Lowers a fader as little as brings the end of its stretch down to what is wanted. */
function lower({ tried, stretch, limits }: Settling, fader: GainControl): void {
  const grid = gainGrid(fader.range)
  const rest = grid.below(tried.get(fader))
  const { step, limit } = highestStep(0, rest, (each) => {
    tried.set(fader, grid.at(each))
    return stretch.error(tried.points()) > SAME_DB ? endOf(stretch) : null
  })
  tried.set(fader, grid.at(step ?? 0))
  limits.set(fader, limit)
}

/** Where rounding down lands under the window and one step more lands inside it, that step is taken. */
function stepOver(settling: Settling): void {
  const { tried, stretch, limits } = settling
  const { by } = endOf(stretch)
  const control = stretch.gains.findLast((each) => limits.get(each)?.by === by)
  if (!control) return
  const grid = gainGrid(control.range)
  const before = tried.get(control)
  const floors = floorsIn(settling, settling.now)
  tried.set(control, grid.at(grid.below(before) + 1))
  const points = tried.points()
  if (stretch.misses(points) !== 0 || tightStage(points, floors, tried.indexOf(control)) !== null)
    tried.set(control, before)
}

/** The highest step without an obstacle, by halving: what is in the way at one step is in the way at all above it. */
export function highestStep(
  lowest: number,
  last: number,
  obstacleAt: (step: number) => Limit | null,
): { step: number | null; limit: Limit } {
  if (obstacleAt(last) === null) return { step: last, limit: { by: 'highest' } }
  const already = obstacleAt(lowest)
  if (already) return { step: null, limit: already.by === 'headroom' ? already : { by: 'lowest' } }
  let [free, blocked] = [lowest, last]
  while (blocked - free > 1) {
    const middle = (free + blocked) >> 1
    if (obstacleAt(middle) === null) free = middle
    else blocked = middle
  }
  return { step: free, limit: obstacleAt(free + 1) ?? { by: 'highest' } }
}
