import type { Point } from '../chain/cascade'
import type { GainControl } from '../chain/gain-control'
import { restingGain } from '../chain/gain-control'
import type { ResolvedStage } from '../chain/resolve'
import { gainGrid } from '../chain/settable-gain'
import type { ReadingPlace } from '../chain/target-window'
import { readingPlace } from '../chain/target-window'
import { windowOf } from '../uncertainty/window'
import type { Gear, Session, Strip, TargetWindow } from '../session'
import { floorsOf, tightStage } from './reserve'
import type { Stretch } from './stretch'
import { stretchesOf } from './stretch'
import { TriedGains } from './tried-gains'

/** What kept a gain from being set higher, or moved at all. */
export type Limit =
  | { by: 'target' | 'highest' | 'lowest' | 'locked' | 'zero mark' | 'left' | 'driven' | 'partner' }
  | { by: 'headroom' | 'held'; stage: string }

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

/** Differences below this are rounding errors. */
const SAME = 1e-6

/**
 * Shares the gain out over a strip's controls, so that the target reads what it aims at where it is read.
 *
 * In each stretch of the strip every gain in turn – forwards from the source – is raised as far as its range, the reserve
 * of headroom at every stage behind it and the stretch's end allow, while those after it are fully down. So the level
 * behind every gain is the highest that any allowed sharing gives, what follows adds the least noise, and no sharing of
 * the same total is quieter. Backwards is the careless way: everything at the last gain.
 *
 * Faders rest at their zero mark, and are moved only where the gains alone do not reach. What stands behind the place of
 * reading is for the mix, and stays; only the operating system's slider is put where it does nothing.
 */
export function allocate(
  session: Session,
  strip: Strip,
  gear: ReadonlyMap<string, Gear>,
  way: Way = 'forwards',
): Allocation {
  const tried = new TriedGains(session, strip, gear)
  const window = windowOf(session, strip, tried.stages)
  const place = readingPlace(tried.stages, window)
  const limits = new Map<GainControl, Limit>()
  if (place) {
    const now = tried.points()
    const stretches = stretchesOf(tried, place, window, now)
    for (const { gains, faders } of stretches)
      for (const control of [...gains, ...faders]) tried.set(control, restOf(control))
    for (const slider of tried.controls) if (isIdleSlider(slider, place)) tried.set(slider, 0)
    for (const stretch of stretches) settle(tried, stretch, now, way, limits)
  }
  return {
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
}

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

/** Brings the end of a stretch to what is wanted there: by its gains, and where they do not reach by its faders. */
function settle(tried: TriedGains, stretch: Stretch, now: Point[], way: Way, limits: Map<GainControl, Limit>): void {
  const { gains, faders } = stretch
  for (const control of way === 'forwards' ? gains : [...gains].reverse()) raise(tried, stretch, control, now, limits)
  if (stretch.misses(tried.points()) < 0) stepOver(tried, stretch, now, limits)
  for (const fader of faders) {
    if (stretch.misses(tried.points()) < 0) raise(tried, stretch, fader, now, limits)
    else limits.set(fader, { by: 'zero mark' })
  }
  for (const fader of [...faders].reverse()) {
    if (stretch.misses(tried.points()) > 0) lower(tried, stretch, fader, limits)
  }
}

const endOf = ({ held }: Stretch): Limit => (held === null ? { by: 'target' } : { by: 'held', stage: held })

/** What is in the way of a control at a value. */
function obstacle(
  tried: TriedGains,
  stretch: Stretch,
  control: GainControl,
  value: number,
  floors: ReturnType<typeof floorsOf>,
): Limit | null {
  tried.set(control, value)
  const points = tried.points()
  const tight = tightStage(points, floors, tried.indexOf(control))
  if (tight !== null) return { by: 'headroom', stage: tight }
  return stretch.error(points) > SAME ? endOf(stretch) : null
}

/** Raises a control from where it stands, as far as nothing is in the way. */
function raise(
  tried: TriedGains,
  stretch: Stretch,
  control: GainControl,
  now: Point[],
  limits: Map<GainControl, Limit>,
): void {
  const grid = gainGrid(control.range)
  const from = tried.get(control)
  const floors = floorsOf(tried.stages, tried.points(), stretch.held === null ? null : now)
  const { step, limit } = highestStep(grid.below(from), grid.last, (each) =>
    obstacle(tried, stretch, control, grid.at(each), floors),
  )
  tried.set(control, step === null ? from : grid.at(step))
  limits.set(control, limit)
}

/** Lowers a fader as little as brings the end of its stretch down to what is wanted. */
function lower(tried: TriedGains, stretch: Stretch, fader: GainControl, limits: Map<GainControl, Limit>): void {
  const grid = gainGrid(fader.range)
  const rest = grid.below(tried.get(fader))
  const { step, limit } = highestStep(0, rest, (each) => {
    tried.set(fader, grid.at(each))
    return stretch.error(tried.points()) > SAME ? endOf(stretch) : null
  })
  tried.set(fader, grid.at(step ?? 0))
  limits.set(fader, limit)
}

/** Where rounding down lands under the window and one step more lands inside it, that step is taken. */
function stepOver(tried: TriedGains, stretch: Stretch, now: Point[], limits: Map<GainControl, Limit>): void {
  const { by } = endOf(stretch)
  const control = stretch.gains.findLast((each) => limits.get(each)?.by === by)
  if (!control) return
  const grid = gainGrid(control.range)
  const before = tried.get(control)
  const floors = floorsOf(tried.stages, tried.points(), stretch.held === null ? null : now)
  tried.set(control, grid.at(grid.below(before) + 1))
  const points = tried.points()
  if (stretch.misses(points) !== 0 || tightStage(points, floors, tried.indexOf(control)) !== null)
    tried.set(control, before)
}

/** The highest step without an obstacle, by halving: what is in the way at one step is in the way at all above it. */
function highestStep(
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
