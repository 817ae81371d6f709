import type { StripCascade } from '../chain/graph'
import { Arrivals, feedOrder, cascadeStrip } from '../chain/graph'
import type { ResolvedStage } from '../gear/stage'
import { resolveStrip } from '../gear/stage'
import { gearById, stagesOf } from '../resolved/resolve-session'
import { routeInputs } from '../latency/route-inputs'
import { routes } from '../latency/routes'
import type { Gear } from '../gear'
import type { Reading, Strip } from '../model'
import type { Session } from '../session'
import { feedsOf, isBus } from '../model'
import { FIGURES, SUM_FIGURES } from './figures'
import type { UncertainInput } from './input'
import { Moved } from './input'
import type { MeterScale } from './meters'
import { meterScale } from './meters'

/** One input, and by how many of its standard uncertainties it is moved. */
export interface Step {
  readonly input: UncertainInput
  readonly z: number
}

/** A strip’s figures one after the other: those of every point, of the sum, of its routes. NaN where there is none. */
export type Numbers = Float64Array

/**
 * A session walked as it stands, and again with some of its inputs moved: by the cascade and the routes themselves, only the
 * strips that a moved input reaches.
 */
export class PerturbedEvaluations {
  readonly order: readonly Strip[]
  private readonly gear: ReadonlyMap<string, Gear>
  private readonly base = new Map<string, StripCascade>()
  private readonly numbers = new Map<string, Numbers>()
  private readonly reached = new Map<string, ReadonlySet<string>>()

  constructor(readonly session: Session) {
    this.order = feedOrder(session.strips)
    this.gear = gearById(session)
    const arrivals = new Arrivals()
    for (const strip of this.order) {
      const stages = stagesOf(session, strip)
      const walked = cascadeStrip(strip, stages, session, arrivals.at(strip.id))
      arrivals.add(walked)
      const times = timesOf(strip, stages, session)
      const numbers = levelNumbers(walked, levelsOf(walked) + times.length)
      numbers.set(times, levelsOf(walked))
      this.base.set(strip.id, walked)
      this.numbers.set(strip.id, numbers)
    }
  }

  /** How a meter at a point is understood; `null` where none there can have that unit. */
  meterAt(strip: string, point: number, reading: Pick<Reading, 'reads' | 'unit'>): MeterScale | null {
    const found = this.session.strips.find(({ id }) => id === strip) as Strip
    const at = this.cascadeOf(strip).points[point] as StripCascade['points'][number]
    const stages = stagesOf(this.session, found)
    return meterScale(
      stages,
      stages.findIndex(({ id }) => id === at.stage),
      at.unit,
      reading,
    )
  }

  hasStrip = (strip: string): boolean => this.base.has(strip)
  cascadeOf = (strip: string): StripCascade => this.base.get(strip) as StripCascade
  numbersAt = (strip: string): Numbers => this.numbers.get(strip) as Numbers

  /** The figures of every strip that the steps reach; with `only`, of those strips alone. */
  moved(steps: readonly Step[], only?: ReadonlySet<string>): Map<string, Numbers> {
    return this.mover(
      steps.map(({ input }) => input),
      only,
    )(steps.map(({ z }) => z))
  }

  /**
   * Inputs that are moved again and again, each time to other places.
   * @param only these strips; of others nothing is wanted
   * @param wanted whether times are wanted too, or levels alone; times stay as they stand then
   * @returns the figures of every strip that the inputs reach, by how many of its standard uncertainties each is moved
   */
  mover(
    inputs: readonly UncertainInput[],
    only?: ReadonlySet<string>,
    wanted: 'all' | 'levels' = 'all',
  ): (z: readonly number[]) => Map<string, Numbers> {
    const boxes = new Moved(this.session, this.gear)
    const touched = new Set(
      inputs.flatMap((input) => [...this.reach(input)].filter((strip) => !only || only.has(strip))),
    )
    const times = wanted === 'all' && inputs.some(({ place }) => MOVES[place.in] !== 'levels')
    const levels = inputs.some(({ place }) => MOVES[place.in] !== 'times')
    const roundTrips = wanted === 'all' ? inputs.flatMap(({ place }, i) => (place.in === 'round-trips' ? [i] : [])) : []
    return (z) => {
      inputs.forEach((input, i) => boxes.move(input, z[i] as number))
      const session = { ...this.session, room: boxes.room }
      const arrivals = new Arrivals()
      const found = new Map<string, Numbers>()
      for (const each of this.order) {
        if (only && !only.has(each.id)) continue
        if (!touched.has(each.id)) {
          arrivals.add(this.cascadeOf(each.id))
          continue
        }
        const strip = boxes.strip(each)
        const stages = resolveStrip(strip, boxes)
        const walked = levels ? cascadeStrip(strip, stages, session, arrivals.at(strip.id)) : this.cascadeOf(each.id)
        arrivals.add(walked)
        const numbers = levelNumbers(walked, this.numbersAt(strip.id).length)
        this.putTimes(numbers, strip, times ? timesOf(strip, stages, session) : null)
        for (const i of roundTrips)
          if (!isBus(strip)) delay(numbers, (z[i] as number) * (inputs[i] as UncertainInput).doubt.u)
        found.set(each.id, numbers)
      }
      return found
    }
  }

  /** The strips in which an input stands, and whatever those feed. */
  reach({ strips }: UncertainInput): ReadonlySet<string> {
    const key = strips.join(' ')
    const known = this.reached.get(key)
    if (known) return known
    const found = new Set(strips)
    for (const strip of this.order) if (found.has(strip.id)) for (const { to } of feedsOf(strip)) found.add(to)
    this.reached.set(key, found)
    return found
  }

  /** A strip and all that leads to it: for its figures the others need not be walked. */
  leadingTo(strip: string): ReadonlySet<string> {
    const found = new Set([strip])
    for (const each of [...this.order].reverse()) if (feedsOf(each).some(({ to }) => found.has(to))) found.add(each.id)
    return found
  }

  /** The times of a strip behind its levels: those given, or as they stand. */
  private putTimes(numbers: Numbers, strip: Strip, times: readonly number[] | null): void {
    const from = levelsOf(this.cascadeOf(strip.id))
    numbers.set(times ?? this.numbersAt(strip.id).subarray(from), from)
  }
}

/** What an input can move: the levels of a strip, its times, or both. */
const MOVES: Record<UncertainInput['place']['in'], 'levels' | 'times' | 'both'> = {
  'gear': 'both',
  'strip': 'both',
  'room': 'both',
  'latency': 'times',
  'monitor': 'times',
  'round-trips': 'times',
}

/** How many numbers of a strip are levels. */
const levelsOf = ({ points, sum }: StripCascade): number =>
  points.length * FIGURES.length + (sum ? SUM_FIGURES.length : 0)

function levelNumbers({ points, sum }: StripCascade, length: number): Numbers {
  const numbers = new Float64Array(length)
  let at = 0
  for (const point of points) for (const figure of FIGURES) numbers[at++] = point[figure] ?? NaN
  if (sum) for (const figure of SUM_FIGURES) numbers[at++] = sum[figure]
  return numbers
}

/** The times of a strip’s routes, ms: direct where there is such a way, and through the host. */
function timesOf(strip: Strip, stages: readonly ResolvedStage[], session: Session): number[] {
  const timing = isBus(strip) ? null : routeInputs(session, strip, stages)
  return timing ? routes(timing.inputs).map(({ milliseconds }) => milliseconds) : []
}

/** The way through the host is the last of the routes, and the one that a measured round trip tells of. */
function delay(numbers: Numbers, by: number): void {
  if (numbers.length > 0) numbers[numbers.length - 1] = (numbers.at(-1) as number) + by
}
