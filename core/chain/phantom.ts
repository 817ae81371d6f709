import type { PhantomAttitude, Session, SettingChange } from '../session'
import { chainTraits } from './compile/kinds'
import { inPlug, outPlug } from './joint'
import type { ResolvedStage } from './resolve'
import type { PhantomSupply } from './traits'

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
  /** A cable on the way that 48 V does not pass. */
  readonly blocked: boolean
}

/** A use with the box that can feed it. */
export type FedUse = PhantomUse & { readonly supply: PhantomSupply }
export const isFed = (use: PhantomUse): use is FedUse => use.supply !== null && !use.blocked

interface ByPlace {
  readonly ofStrip: ReadonlyMap<string, readonly PhantomUse[]>
  readonly onSwitch: ReadonlyMap<string, readonly FedUse[]>
}
/** Every strip asks for its own and its neighbours' uses: those of a session are put in order once for all of them. */
const byPlace = new WeakMap<readonly PhantomUse[], ByPlace>()

function placed(uses: readonly PhantomUse[]): ByPlace {
  const known = byPlace.get(uses)
  if (known) return known
  const found = {
    ofStrip: by(uses, ({ strip }) => strip),
    onSwitch: by(uses.filter(isFed), ({ supply }) => supply.switchId),
  }
  byPlace.set(uses, found)
  return found
}

function by<T>(items: readonly T[], key: (item: T) => string): ReadonlyMap<string, readonly T[]> {
  const found = new Map<string, T[]>()
  for (const item of items) {
    const group = found.get(key(item))
    if (group) group.push(item)
    else found.set(key(item), [item])
  }
  return found
}

/** The uses of one strip. */
export const usesOf = (uses: readonly PhantomUse[], strip: string): readonly PhantomUse[] =>
  placed(uses).ofStrip.get(strip) ?? NONE
/** Everything that one switch feeds. */
export const usesOn = (uses: readonly PhantomUse[], switchId: string): readonly FedUse[] =>
  placed(uses).onSwitch.get(switchId) ?? NONE
const NONE: readonly FedUse[] = []

/** Everything in the session that needs, minds or could be reached by phantom power. */
export function phantomUses(session: Session, resolved: readonly (readonly ResolvedStage[])[]): PhantomUse[] {
  const uses: PhantomUse[] = []
  session.strips.forEach((strip, s) => {
    const stages = resolved[s] ?? []
    stages.forEach((user, i) => {
      const attitude = chainTraits(user).phantomAttitude(user)
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

/** 48 V comes from the first active box; a pad lets it through, a cable with a jack does not. */
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
    const traits = chainTraits(stage)
    if (!traits.passesPhantom) return { supply: traits.phantomSupply(stage), blocked }
  }
  return { supply: null, blocked }
}

/** A change of the switch that feeds an input, for every input of the session that it feeds. */
export const phantomChanges = (uses: readonly PhantomUse[], stage: string, to: boolean): SettingChange[] => {
  const own = uses.find((use) => use.supply?.stage.id === stage)
  if (!own) return []
  return uses
    .filter((use) => use.supply?.switchId === own.supply?.switchId)
    .map((use) => ({ strip: use.strip, stage: use.supply?.stage.id ?? stage, setting: 'phantom', to }))
}
