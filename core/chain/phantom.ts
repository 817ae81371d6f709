import type { Gear, Session } from '../session'
import type { ResolvedInput, ResolvedMicrophone, ResolvedStage } from './resolve'

/** A microphone on an interface input, and the switch that decides about its 48 V. */
export interface PhantomUse {
  readonly strip: string
  readonly stripName: string
  readonly microphone: ResolvedMicrophone
  readonly input: ResolvedInput
  /** Inputs with the same switch get 48 V together. */
  readonly switchId: string
}

/** Every microphone of the session that stands directly before an interface input. */
export function phantomUses(session: Session, resolved: readonly (readonly ResolvedStage[])[]): PhantomUse[] {
  return session.strips.flatMap((strip, s) => (resolved[s] ?? []).flatMap((stage, i, stages) => {
    const input = stages[i + 1]
    if (stage.kind !== 'microphone' || input?.kind !== 'interface') return []
    return [{ strip: strip.id, stripName: strip.name, microphone: stage, input, switchId: switchOf(input.gear, input) }]
  }))
}

const switchOf = (unit: Gear, { input }: ResolvedInput) =>
  input.phantomBank === undefined ? `${unit.id}/input/${input.id}` : `${unit.id}/bank/${input.phantomBank}`
