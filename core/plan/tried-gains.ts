import type { Point } from '../chain/cascade'
import type { GainControl } from '../chain/gain-control'
import { stripControls } from '../chain/gain-control'
import { arrivingAt, cascadeStrip } from '../chain/graph'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import type { Signal } from '../chain/signal'
import type { Session } from '../session'
import type { Strip } from '../model'

/** A strip whose gains are tried out: what is set now, and the levels that it gives. */
export class TriedGains {
  readonly stages: readonly ResolvedStage[]
  readonly controls: readonly GainControl[]
  private readonly arriving: readonly Signal[]
  private readonly values = new Map<GainControl, number>()

  constructor(
    private readonly session: Session,
    private readonly original: Strip,
  ) {
    this.stages = stagesOf(session, original)
    this.controls = stripControls(this.stages)
    this.arriving = arrivingAt(session, original)
  }

  get(control: GainControl): number {
    return this.values.get(control) ?? control.value
  }

  set(control: GainControl, value: number): void {
    this.values.set(control, value)
  }

  /** Where a control's stage stands. */
  indexOf({ stage }: GainControl): number {
    return this.stages.findIndex((each) => each.id === stage)
  }

  /** The strip with the gains as they are tried. */
  strip(): Strip {
    const byStage = new Map<string, Record<string, number>>()
    for (const [{ stage, setting }, value] of this.values)
      byStage.set(stage, { ...byStage.get(stage), [setting]: value })
    return {
      ...this.original,
      stages: this.original.stages.map((stage) => {
        const own = byStage.get(stage.id)
        return own ? { ...stage, settings: { ...stage.settings, ...own } } : stage
      }),
    }
  }

  points(): Point[] {
    const strip = this.strip()
    return cascadeStrip(strip, stagesOf(this.session, strip), this.session, this.arriving).points
  }
}
