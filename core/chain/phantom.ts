import type { PhantomAttitude, Session, SettingChange } from '../session'
import { inPlug, outPlug } from './joint'
import type { Resolved, ResolvedInput, ResolvedStage } from './resolve'

/** A box that could give 48 V, and the switch that decides about it. */
export interface PhantomSupply {
  readonly stage: ResolvedInput | Resolved<'preamp'> | Resolved<'desk-channel'>
  readonly can: boolean
  readonly on: boolean
  /** Inputs with the same switch get 48 V together. */
  readonly switchId: string
  readonly bank: string | undefined
}

/** Something that 48 V is for, or could reach. */
export interface PhantomUse {
  readonly strip: string
  readonly stripName: string
  readonly user: ResolvedStage
  readonly attitude: PhantomAttitude
  /** The first active box after it, where that can give 48 V at all: no box behind it can. */
  readonly supply: PhantomSupply | null
  /** The stage that stands next after it, where what it lacks is said. */
  readonly next: ResolvedStage | null
  /** A lead on the way that 48 V does not pass. */
  readonly blocked: boolean
}

/** Everything in the session that needs, minds or could be reached by phantom power. */
export function phantomUses(session: Session, resolved: readonly (readonly ResolvedStage[])[]): PhantomUse[] {
  const uses: PhantomUse[] = []
  session.strips.forEach((strip, s) => {
    const stages = resolved[s] ?? []
    stages.forEach((user, i) => {
      const attitude = attitudeOf(user)
      if (attitude === null) return
      const { supply, blocked } = supplyAfter(stages, i)
      if (attitude === 'needed' || supply) {
        uses.push({
          strip: strip.id,
          stripName: strip.name,
          user,
          attitude,
          supply,
          blocked,
          next: stages[i + 1] ?? null,
        })
      }
    })
  })
  return uses
}

/** What 48 V does to a stage; `null` where none can reach it. */
function attitudeOf(stage: ResolvedStage): PhantomAttitude | null {
  switch (stage.kind) {
    case 'microphone':
    case 'di-box':
      return stage.gear.phantom
    case 'booster':
      return 'needed'
    case 'sound-source':
    case 'playback':
    case 'pad':
    case 'interface':
    case 'digital-input':
      return null
    // An output that drives one leg has nothing to hold 48 V off it.
    default:
      return outPlug(stage)?.balance === 'one-leg' ? 'harmful' : 'harmless'
  }
}

/** 48 V comes from the first active box; a pad lets it through, a lead with a jack does not. */
function supplyAfter(
  stages: readonly ResolvedStage[],
  from: number,
): { supply: PhantomSupply | null; blocked: boolean } {
  let blocked = false
  for (let i = from + 1; i < stages.length; i++) {
    const [before, stage] = [stages[i - 1] as ResolvedStage, stages[i] as ResolvedStage]
    blocked ||= [outPlug(before)?.connector, inPlug(stage)?.connector].some(
      (each) => each !== undefined && each !== 'xlr' && each !== 'combo',
    )
    if (stage.kind !== 'pad') return { supply: supplyOf(stage), blocked }
  }
  return { supply: null, blocked }
}

function supplyOf(stage: ResolvedStage): PhantomSupply | null {
  if (stage.kind === 'interface' && stage.input.type === 'mic') {
    const bank = stage.input.phantomBank
    return {
      stage,
      can: stage.input.phantom,
      on: stage.phantom,
      bank,
      switchId: switchId(stage.gear.id, bank, stage.input.id),
    }
  }
  if (stage.kind === 'desk-channel' && stage.gear.input === 'mic') {
    const bank = stage.gear.phantomBank
    return {
      stage,
      can: stage.gear.phantom,
      on: stage.settings.phantom ?? false,
      bank,
      switchId: switchId(stage.gear.desk ?? stage.gear.id, bank, stage.id),
    }
  }
  if (stage.kind === 'preamp') {
    return {
      stage,
      can: stage.gear.phantom,
      on: stage.settings.phantom ?? false,
      bank: undefined,
      switchId: `${stage.gear.id}/input/${stage.id}`,
    }
  }
  return null
}

const switchId = (unit: string, bank: string | undefined, input: string) =>
  bank === undefined ? `${unit}/input/${input}` : `${unit}/bank/${bank}`

/** A change of the switch that feeds an input, for every input of the session that it feeds. */
export const phantomChanges = (uses: readonly PhantomUse[], stage: string, to: boolean): SettingChange[] => {
  const own = uses.find((use) => use.supply?.stage.id === stage)
  if (!own) return []
  return uses
    .filter((use) => use.supply?.switchId === own.supply?.switchId)
    .map((use) => ({ strip: use.strip, stage: use.supply?.stage.id ?? stage, setting: 'phantom', to }))
}
