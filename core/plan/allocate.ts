import type { Point } from '../chain/cascade'
import { cascade } from '../chain/cascade'
import { compileStrip } from '../chain/compile'
import type { GainControl } from '../chain/gain-control'
import { stripControls } from '../chain/gain-control'
import { resolveStrip } from '../chain/resolve'
import { gainGrid } from '../chain/settable-gain'
import { aimError } from '../chain/target-reading'
import type { Gear, Session, Strip, TargetWindow } from '../session'

/** Headroom over the rehearsed peak that the planner leaves at every analogue stage, dB (common practice, no source). */
export const RESERVE = 10

/** What kept a gain from being set higher. */
export type Limit = { by: 'target' | 'highest' | 'lowest' | 'locked' | 'zero mark' } | { by: 'headroom'; stage: string }

export interface Allotment {
  control: GainControl
  value: number
  limit: Limit
}

export interface Allocation {
  allotments: Allotment[]
  /** The strip with these gains. */
  strip: Strip
  points: Point[]
}

/** Differences below this are rounding errors. */
const SAME = 1e-6

/**
 * Shares the gain out over a strip's controls, in the order given, so that the recorder reads what the target aims at.
 *
 * Forwards, each gain is raised as far as its range, the reserve of headroom at every analogue stage behind it and the
 * target allow, while those after it are fully down; then the next. So the level behind every gain is the highest that
 * any allowed sharing gives, what follows adds the least noise, and no sharing of the same total is quieter.
 * Backwards, and without a reserve, it is the careless way: everything at the last gain.
 */
export function allocate(
  session: Session,
  strip: Strip,
  gear: ReadonlyMap<string, Gear>,
  target: TargetWindow,
  way: 'forwards' | 'backwards' = 'forwards',
): Allocation {
  const controls = stripControls(resolveStrip(strip, gear))
  const movable = movableOf(controls)
  const values = new Map(
    controls.map((control) => [control, movable.has(control) ? startOf(control, way) : restOf(control, controls)]),
  )
  const at = () => withGains(strip, values)
  const levels = () => {
    const { programme, twoPorts } = compileStrip(resolveStrip(at(), gear), session)
    return cascade(programme, twoPorts).points
  }
  const limits = new Map<GainControl, Limit>()
  const reserve = way === 'forwards' ? RESERVE : -Infinity

  for (const control of way === 'forwards' ? movable : [...movable].reverse()) {
    const grid = gainGrid(control.range)
    const from = strip.stages.findIndex((stage) => stage.id === control.stage)
    const start = values.get(control) ?? control.range.gainMin
    const before = levels()
    const obstacle = (step: number): Limit | null => {
      values.set(control, grid.at(step))
      const points = levels()
      const tight = points.find(
        (point, i) =>
          i >= from &&
          point.unit === 'dBu' &&
          point.headroom !== null &&
          point.headroom < Math.min(reserve, before[i]?.headroom ?? reserve) - SAME,
      )
      if (tight) return { by: 'headroom', stage: tight.stage }
      const end = points.at(-1)
      return end?.unit === 'dBFS' && aimError(end, target) > SAME ? { by: 'target' } : null
    }
    const { step, limit } = highestStep(grid.last, obstacle)
    values.set(control, step === null ? start : grid.at(step))
    limits.set(control, step === null ? { by: 'lowest' } : limit)
  }
  return {
    allotments: controls.map((control) => ({
      control,
      value: values.get(control) ?? control.value,
      limit: limits.get(control) ?? { by: control.locked ? 'locked' : 'zero mark' },
    })),
    strip: at(),
    points: levels(),
  }
}

/** The highest step without an obstacle, by halving: what is in the way at one step is in the way at all above it. */
function highestStep(last: number, obstacle: (step: number) => Limit | null): { step: number | null; limit: Limit } {
  if (obstacle(last) === null) return { step: last, limit: { by: 'highest' } }
  const lowest = obstacle(0)
  if (lowest) return { step: null, limit: lowest }
  let [free, blocked] = [0, last]
  while (blocked - free > 1) {
    const middle = (free + blocked) >> 1
    if (obstacle(middle) === null) free = middle
    else blocked = middle
  }
  return { step: free, limit: obstacle(free + 1) ?? { by: 'highest' } }
}

/**
 * The gains that the planner moves. Behind the converter the order of gains changes no noise, so there only the last is
 * moved, and only where nothing can be turned before it.
 */
function movableOf(controls: readonly GainControl[]): Set<GainControl> {
  const analogue = controls.filter((each) => each.domain === 'analogue')
  if (analogue.length > 0) return new Set(analogue.filter((each) => !each.locked))
  const last = controls.findLast((each) => !each.locked)
  return new Set(last ? [last] : [])
}

/** Careless hands leave the faders at their zero mark. */
function startOf(control: GainControl, way: 'forwards' | 'backwards'): number {
  const { gainMin, gainMax } = control.range
  return way === 'backwards' && gainMin < 0 && gainMax >= 0 ? 0 : gainMin
}

/** A gain behind the converter is put where it does nothing; in a strip of such gains only, and where locked, it stays. */
function restOf(control: GainControl, controls: readonly GainControl[]): number {
  const idle = control.domain === 'digital' && !control.locked && controls.some((each) => each.domain === 'analogue')
  return idle && control.isSystemSlider && control.range.gainMin <= 0 && control.range.gainMax >= 0 ? 0 : control.value
}

function withGains(strip: Strip, values: ReadonlyMap<GainControl, number>): Strip {
  const byStage = new Map<string, Record<string, number>>()
  for (const [control, value] of values)
    byStage.set(control.stage, { ...byStage.get(control.stage), [control.setting]: value })
  return {
    ...strip,
    stages: strip.stages.map((stage) => {
      const own = byStage.get(stage.id)
      return own ? { ...stage, settings: { ...stage.settings, ...own } } : stage
    }),
  }
}
