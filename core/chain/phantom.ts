import type { Gear, Session, SettingChange } from '../session'
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
  const uses: PhantomUse[] = []
  session.strips.forEach((strip, s) => {
    const stages = resolved[s] ?? []
    for (let i = 1; i < stages.length; i++) {
      const [microphone, input] = [stages[i - 1], stages[i]]
      if (microphone?.kind !== 'microphone' || input?.kind !== 'interface') continue
      uses.push({ strip: strip.id, stripName: strip.name, microphone, input, switchId: switchOf(input.gear, input) })
    }
  })
  return uses
}

/** A change of the switch that feeds an input, for every input of the session that it feeds. */
export const phantomChanges = (uses: readonly PhantomUse[], stage: string, to: boolean): SettingChange[] => {
  const own = uses.find((use) => use.input.id === stage)
  return uses
    .filter((use) => use.switchId === own?.switchId)
    .map((use) => ({ strip: use.strip, stage: use.input.id, setting: 'phantom', to }))
}

const switchOf = (unit: Gear, { input }: ResolvedInput) =>
  input.phantomBank === undefined ? `${unit.id}/input/${input.id}` : `${unit.id}/bank/${input.phantomBank}`
