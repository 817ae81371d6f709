import { gearById, stagesOf } from '../resolved/resolve-session'
import type { ResolvedStage } from '../gear/stage'
import type { StripEvaluation, Evaluation } from '../evaluation/evaluate-session'
import type { PlannedSetting } from '../plan/as-change'
import type { Gear } from '../gear'
import { isInterface, isProcessor } from '../gear'
import type { Strip } from '../model'
import type { Session } from '../session'
import { feedsOf, isBus } from '../model'
import { digest } from './step'

/** One strip as the run sheet looks at it. */
export interface SheetStrip {
  readonly strip: Strip
  readonly stages: readonly ResolvedStage[]
  readonly evaluated: StripEvaluation
}

/** A session with all that its run sheet is made of. */
export class Sheet {
  readonly gear: ReadonlyMap<string, Gear>
  readonly strips: readonly SheetStrip[]
  readonly channels: readonly SheetStrip[]
  readonly busses: readonly SheetStrip[]
  /** The boxes that have converters, each once. */
  readonly units: readonly Extract<Gear, { kind: 'interface' }>[]
  private readonly settled = new Map<string, string>()

  /** @param planned what the planner would set otherwise */
  constructor(
    readonly session: Session,
    evaluation: Evaluation,
    readonly planned: readonly PlannedSetting[],
  ) {
    this.gear = gearById(session)
    this.strips = session.strips.map((strip, i) => ({
      strip,
      stages: stagesOf(session, strip),
      evaluated: evaluation.strips[i] as StripEvaluation,
    }))
    this.channels = this.strips.filter(({ strip }) => !isBus(strip))
    this.busses = this.strips.filter(({ strip }) => isBus(strip))
    const used = new Set(session.strips.flatMap(({ stages }) => stages.map(({ gear }) => gear)))
    this.units = session.gear.filter((each) => isInterface(each) && used.has(each.id)) as Extract<
      Gear,
      { kind: 'interface' }
    >[]
  }

  /** The plan’s value of a gain, where it is another one. */
  plannedFor = (strip: string, stage: string, setting: 'gain' | 'fader'): number | null =>
    this.planned.find((each) => each.strip === strip && each.stage === stage && each.setting === setting)?.to ?? null

  /**
   * A fingerprint of everything that is set up to a stage, and of what leads to its strip: whoever changes any of it opens the steps
   * from there on again.
   */
  setUpTo({ strip, stages }: SheetStrip, index: number): string {
    const key = `${strip.id} ${index}`
    const known = this.settled.get(key)
    if (known !== undefined) return known
    // Cables and capacitances are the plugs’ matter.
    const own = stages
      .slice(0, index + 1)
      .map(({ gear, settings: { cable: _, capacitance: __, ...settings } }) => [
        gear.id,
        settings,
        ...(isProcessor(gear) ? [gear.blocks] : []),
      ])
    const found = digest(JSON.stringify([isBus(strip) ? this.leadingTo(strip) : null, own]))
    this.settled.set(key, found)
    return found
  }

  private leadingTo(bus: Strip): unknown {
    return this.strips.flatMap((each) =>
      feedsOf(each.strip)
        .filter(({ to }) => to === bus.id)
        .map(({ from, tap, gain }) => {
          const at = from === undefined ? -1 : each.stages.findIndex(({ id }) => id === from)
          return [each.strip.id, tap, gain, this.setUpTo(each, at < 0 ? each.stages.length - 1 : at)]
        }),
    )
  }
}
