import type { StripView } from '../checks'
import { viewFrom } from '../evaluation/appraise'
import type { Appraised } from '../evaluation/appraise'
import { evaluateFrom } from '../evaluation/evaluate-session'
import type { StripEvaluation } from '../evaluation/evaluate-session'
import type { Recommendation } from '../latency/recommend'
import type { PerformerMonitor } from '../monitoring/monitor-session'
import { monitorSession } from '../monitoring/monitor-session'
import { asChange } from '../plan/as-change'
import { planSession } from '../plan/plan-session'
import type { PlannedSetting } from '../plan/plan-session'
import type { AudioInterface } from '../gear'
import type { Session } from '../session'
import type { Strip } from '../model'
import type { Finding } from '../checks/finding'
import { applyChanges } from '../edits'
import { feedsOf, isBus } from '../model'
import { hostUnit, timeSession } from '../timing/time-session'
import type { Timing, TimingCell } from '../timing/time-session'

/** What all strips of a session have in common for a diagnosis. Worked out once, and only what is asked for. */
export class SessionView {
  readonly strips: readonly DiagnosisView[]
  readonly findings: ReadonlyMap<string, readonly Finding[]>
  readonly unit: AudioInterface | null
  private timed: Timing | undefined
  private heard: readonly PerformerMonitor[] | undefined
  private planned: readonly PlannedSetting[] | undefined
  private set: SessionView | undefined

  constructor(readonly session: Session) {
    const { evaluation, appraisal } = evaluateFrom(null, session)
    this.unit = hostUnit(session)
    this.findings = new Map(evaluation.strips.map(({ id, findings }) => [id, findings]))
    this.strips = session.strips.map((strip, i) => {
      const appraised = appraisal.strips[i] as Appraised
      return new DiagnosisView(
        this,
        viewFrom(session, strip, appraisal.phantom, appraised.walked),
        evaluation.strips[i] as StripEvaluation,
      )
    })
  }

  get timing(): Timing {
    return (this.timed ??= timeSession(this.session))
  }

  /** What is known of the rate and buffer that are set; `null` without an interface. */
  get cell(): TimingCell | null {
    const { sampleRate, bufferFrames } = this.session.system
    return (
      this.timing.matrix.find((each) => each.sampleRate === sampleRate && each.bufferFrames === bufferFrames) ?? null
    )
  }

  get monitors(): readonly PerformerMonitor[] {
    return (this.heard ??= monitorSession(this.session))
  }

  get plan(): readonly PlannedSetting[] {
    return (this.planned ??= planSession(this.session).settings)
  }

  /** The session as it would be planned. */
  get asPlanned(): SessionView {
    return (this.set ??= new SessionView(applyChanges(this.session, this.plan.map(asChange))))
  }
}

/** All that a cause may look at: one strip as it is set, and the session around it. */
export class DiagnosisView {
  constructor(
    readonly all: SessionView,
    readonly chain: StripView,
    readonly evaluated: StripEvaluation,
  ) {}

  get session(): Session {
    return this.all.session
  }
  get strip(): Strip {
    return this.chain.strip
  }
  get stages(): StripView['stages'] {
    return this.chain.stages
  }
  get points(): StripView['points'] {
    return this.chain.points
  }
  get monitor(): PerformerMonitor | null {
    return this.all.monitors.find(({ strip }) => strip === this.strip.id) ?? null
  }
  get recommendation(): Recommendation | null {
    return this.all.timing.recommendations.find(({ strip }) => strip === this.strip.id) ?? null
  }
  get findings(): readonly Finding[] {
    return this.evaluated.findings
  }
  /** How far the last reading of each stage lay beside what was expected when it was taken, dB; the farthest off first. */
  get readings(): { stage: string; off: number }[] {
    const own = (this.session.soundcheck?.readings ?? []).filter(({ strip }) => strip === this.strip.id)
    const last = new Map(own.map((reading) => [reading.stage, reading]))
    return [...last.values()]
      .flatMap(({ stage, value, expected }) => (expected === undefined ? [] : [{ stage, off: value - expected }]))
      .sort((a, b) => Math.abs(b.off) - Math.abs(a.off))
  }
  name(stage: string): string {
    return this.stages.find(({ id }) => id === stage)?.gear.name ?? ''
  }
  /** Busses that it comes to, itself included where it is one. */
  get busses(): DiagnosisView[] {
    const reached = new Set<string>([this.strip.id])
    for (const id of reached)
      for (const { to } of feedsOf(this.all.strips.find(({ strip }) => strip.id === id)?.strip ?? this.strip))
        reached.add(to)
    return this.all.strips.filter(({ strip }) => isBus(strip) && reached.has(strip.id))
  }
}
