import { chanceOver } from './chance'
import type { Session } from '../session'
import type { RouteName } from '../latency/routes'
import type { PointFigure } from './figures'
import { FIGURES, SUM_FIGURES, placeOf } from './figures'
import type { UncertainInput } from './input'
import { uncertainInputs } from './inputs'
import { curvedFigures } from './curvature'
import type { Linear } from './linear'
import { linearised } from './linear'
import { believed } from './belief'
import { KnownReadings, slopesOf } from './known-readings'
import type { Numbers } from './perturbed-evaluations'
import { PerturbedEvaluations } from './perturbed-evaluations'

/** What part of a figure’s variance an input makes; all shares of a figure add to 1. */
export interface Share {
  /** Path of the input. */
  input: string
  share: number
}

/** A figure with its standard uncertainty; ± on screen is twice that (k = 2). */
export interface Uncertain {
  value: number
  u: number
  /** The greatest first. */
  shares: Share[]
  /** It bends within its own uncertainty: u and shares, which take it for straight, are off, and an interval tells it better. */
  curved?: true
  /** The interval that holds it with 95 %, where it was drawn (JCGM 101). */
  interval?: { low: number; high: number }
}

export interface UncertainPoint {
  stage: string
  average: Uncertain
  peak: Uncertain
  surgePeak: Uncertain
  headroom: Uncertain | null
  surgeHeadroom: Uncertain | null
  /** Where the bottom of everything is: dB(A). */
  noise: Uncertain | null
  snr: Uncertain | null
}

export interface UncertainStrip {
  id: string
  points: UncertainPoint[]
  sum: { average: Uncertain; likely: Uncertain; bound: Uncertain } | null
  latency: ({ route: RouteName } & Uncertain)[]
  /** That a peak passes some ceiling: as rehearsed, and with the surge. `null` where no ceiling is known. */
  chanceOfClipping: { now: number; surge: number } | null
}

export interface Uncertainty {
  inputs: UncertainInput[]
  strips: UncertainStrip[]
}

/** Every figure of a session with its uncertainty, and with what the readings of its soundcheck tell. */
export const uncertaintyOf = (session: Session): Uncertainty => uncertaintyFrom(propagate(session))

export const uncertaintyFrom = ({ session, inputs, strips }: SessionUncertainty): Uncertainty => ({
  inputs,
  strips: session.strips.map(({ id }) => stripOf(strips.get(id) as StripUncertainty)),
})

/** A session’s figures as what is to be asked of them is asked. */
export function propagate(session: Session): SessionUncertainty {
  const inputs = uncertainInputs(session)
  const evaluations = new PerturbedEvaluations(session)
  const linear = linearised(evaluations, inputs)
  const curved = curvedFigures(evaluations, linear)
  const readings = KnownReadings.of(session, evaluations, linear)
  const belief = believed(session)
  const believedEvaluations = belief === session ? evaluations : new PerturbedEvaluations(belief)
  const strips = new Map(
    [...linear].map(([id, each]) => [
      id,
      new StripUncertainty(evaluations, each, curved.get(id), readings, believedEvaluations.numbersAt(id)),
    ]),
  )
  return { session, inputs, evaluations, linear, readings, belief, believedEvaluations, strips }
}

export interface SessionUncertainty {
  readonly session: Session
  readonly inputs: UncertainInput[]
  readonly evaluations: PerturbedEvaluations
  readonly linear: ReadonlyMap<string, Linear>
  readonly readings: KnownReadings
  /** The session as the readings have it, and its levels: what every screen shows. */
  readonly belief: Session
  readonly believedEvaluations: PerturbedEvaluations
  readonly strips: ReadonlyMap<string, StripUncertainty>
}

/** One strip’s figures by their place in its list of numbers. */
export class StripUncertainty {
  readonly points: readonly { readonly stage: string }[]
  readonly behind: number
  readonly timed: number

  constructor(
    evaluations: PerturbedEvaluations,
    readonly linear: Linear,
    private readonly curved: ReadonlySet<number> | undefined,
    private readonly readings: KnownReadings,
    /** The figures as they are believed, readings taken in. */
    readonly values: Numbers,
  ) {
    const { points, sum } = evaluations.cascadeOf(linear.strip)
    this.points = points
    this.behind = points.length * FIGURES.length
    this.timed = this.behind + (sum ? SUM_FIGURES.length : 0)
  }

  get hasSum(): boolean {
    return this.timed > this.behind
  }

  figure(i: number): Uncertain {
    const parts = this.parts(i)
    const variance = parts.reduce((sum, { part }) => sum + part, 0)
    return {
      value: this.values[i] as number,
      u: Math.sqrt(Math.max(0, variance)),
      shares: variance > 0 ? sharesOf(parts, variance) : [],
      ...(this.curved?.has(i) && { curved: true }),
    }
  }

  u(i: number): number {
    return this.readings.areThere ? this.figure(i).u : (this.linear.u[i] as number)
  }

  private parts(i: number): { input: string; part: number }[] {
    const { effects } = this.linear
    if (this.readings.areThere)
      return [...this.readings.left(slopesOf(effects, i))].map(([input, part]) => ({ input, part }))
    return effects.map(({ input, slope }) => ({ input: input.path, part: (slope[i] as number) ** 2 }))
  }
}

function stripOf(doubts: StripUncertainty): UncertainStrip {
  const { points, behind, timed, linear } = doubts
  const figure = (i: number) => doubts.figure(i)
  const known = (i: number) => (Number.isNaN(doubts.values[i]) ? null : figure(i))
  const routes: RouteName[] = linear.values.length - timed === 2 ? ['direct', 'software'] : ['software']
  return {
    id: linear.strip,
    points: points.map(({ stage }, i) => {
      const at = (name: PointFigure) => placeOf(i, name)
      return {
        stage,
        average: figure(at('average')),
        peak: figure(at('peak')),
        surgePeak: figure(at('surgePeak')),
        headroom: known(at('headroom')),
        surgeHeadroom: known(at('surgeHeadroom')),
        noise: known(at('noise')),
        snr: known(at('snr')),
      }
    }),
    sum: doubts.hasSum ? { average: figure(behind), likely: figure(behind + 1), bound: figure(behind + 2) } : null,
    latency: routes.slice(0, linear.values.length - timed).map((route, i) => ({ route, ...figure(timed + i) })),
    chanceOfClipping: chanceOfClipping(doubts),
  }
}

/** Shares of no account are left out, as long as the others make all but that. */
const OF_NO_ACCOUNT = 1e-6

const sharesOf = (parts: readonly { input: string; part: number }[], variance: number): Share[] =>
  parts
    .map(({ input, part }) => ({ input, share: part / variance }))
    .filter(({ share }) => Math.abs(share) > OF_NO_ACCOUNT)
    .sort((a, b) => b.share - a.share)

/**
 * The chance that a peak passes a ceiling, Φ(−z), z = headroom/u: the greatest of all stages, since what is uncertain about them is
 * mostly the same.
 * Example: 13.49 dB with the surge, u 3.79: 0.018 %.
 */
export function chanceOfClipping(doubts: StripUncertainty): UncertainStrip['chanceOfClipping'] {
  const { values } = doubts
  const greatest = (figure: 'headroom' | 'surgeHeadroom') => {
    let found: number | null = null
    for (let i = 0; i < doubts.points.length; i++) {
      const at = placeOf(i, figure)
      const headroom = values[at] as number
      if (!Number.isNaN(headroom)) found = Math.max(found ?? 0, chanceOver(headroom, doubts.u(at)))
    }
    return found
  }
  const [now, surge] = [greatest('headroom'), greatest('surgeHeadroom')]
  return now === null || surge === null ? null : { now, surge }
}
