import { chainTraits } from '../gear/chains'
import { enterStrip, contributions, applyTwoPort } from '../chain/cascade'
import type { Contribution, Point } from '../chain/cascade'
import { compileStrip } from '../chain/compile'
import { arrivingAt } from '../chain/graph'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import { sumSignals } from '../chain/sum'
import type { TwoPort } from '../gear/two-port'
import type { Session } from '../session'
import type { Strip } from '../model'
import { inItsUnit, unitOfSpread } from '../model'
import type { UncertainInput } from '../uncertainty/input'
import { nameOfInput } from '../uncertainty/input'
import type { SessionUncertainty, StripUncertainty, Uncertain } from '../uncertainty/uncertainty'
import { propagate } from '../uncertainty/uncertainty'
import type { PointFigure } from '../uncertainty/figures'
import { placeOf } from '../uncertainty/figures'
import type { Part } from './explanation'

export const UNITS = { dBSPL: 'dB SPL', dBu: 'dBu', dBFS: 'dBFS' } as const

/** One strip of a session as it is explained: joined, walked, and with how sure it all is. */
export class Context {
  readonly stages: readonly ResolvedStage[]
  readonly twoPorts: readonly (TwoPort | undefined)[]
  readonly points: readonly Point[]
  readonly doubts: StripUncertainty
  private readonly inputs: ReadonlyMap<string, UncertainInput>

  constructor(
    readonly session: Session,
    readonly strip: Strip,
    readonly all: SessionUncertainty,
  ) {
    this.stages = stagesOf(session, strip)
    const { programme, twoPorts } = compileStrip(strip, this.stages, session)
    this.twoPorts = programme ? [undefined, ...twoPorts] : twoPorts
    this.points = all.evaluations.cascadeOf(strip.id).points
    this.doubts = all.strips.get(strip.id) as StripUncertainty
    this.inputs = new Map(all.inputs.map((input) => [input.path, input]))
  }

  static of(session: Session, strip: string): Context | null {
    const found = session.strips.find(({ id }) => id === strip)
    return found ? new Context(session, found, propagate(session)) : null
  }

  at = (stage: string): number => this.stages.findIndex(({ id }) => id === stage)
  stage = (i: number): ResolvedStage => this.stages[i] as ResolvedStage
  point = (i: number): Point => this.points[i] as Point
  unit = (i: number): string => UNITS[this.point(i).unit]
  name = (i: number): string => this.stage(i).gear.name
  doubt = (i: number, figure: PointFigure): Uncertain => this.doubts.figure(placeOf(i, figure))

  /** The path of the figures that a stage rests on: its box's, or those of its socket. */
  figuresOf(i: number): string {
    const stage = this.stage(i)
    const port = chainTraits(stage).port(stage)
    return port ? `gear.${stage.gear.id}.${port.side}.${port.id}` : `gear.${stage.gear.id}`
  }

  /** An input of the session as a part; a value that is certain where it is none. */
  input(path: string, name: string, value: number, unit: string, adds: number | null): Part {
    const known = this.inputs.get(path)
    if (!known) return { name, value, unit, adds, u: null }
    const { origin, on, method, place, doubt } = known
    return {
      name,
      value,
      unit,
      adds,
      u: inItsUnit(value, doubt),
      uUnit: unitOfSpread(doubt, unit.replace('(A)', '')),
      origin,
      on,
      method,
      path,
      place,
    }
  }

  /** A figure of a point as a part. */
  figure(i: number, figure: PointFigure, name: string, sign: 1 | -1): Part {
    const { value, u } = this.doubt(i, figure)
    return {
      name,
      value,
      unit: figure === 'headroom' || figure === 'surgeHeadroom' || figure === 'snr' ? 'dB' : this.unit(i),
      adds: sign * value,
      u,
      figure: { strip: this.strip.id, stage: this.stage(i).id, figure },
    }
  }

  /** The inputs behind a figure, those first that make most of its uncertainty. */
  largest({ shares }: Uncertain, most = 5): Part[] {
    return shares.slice(0, most).flatMap(({ input, share }) => {
      const known = this.inputs.get(input)
      if (!known) return []
      const part = this.input(input, nameOfInput(known), known.value, known.unit, null)
      return [{ ...part, share }]
    })
  }

  /** Every noise at the output of a stage, the loudest first. */
  noises(at: number): Contribution[] {
    const { session, strip, stages } = this
    const { programme, twoPorts } = compileStrip(strip, stages, session)
    const signal = programme
      ? enterStrip(programme, strip.id).signal
      : sumSignals(strip, arrivingAt(session, strip)).signal
    for (const twoPort of twoPorts.slice(0, programme ? at : at + 1)) applyTwoPort(signal, twoPort)
    return contributions(signal)
  }
}
