import type { PhantomAttitude } from '../gear'
import type { Session } from '../session'
import type { SettingChange } from '../edits'
import { chainTraits } from '../gear/chains'
import { inPlug, outPlug } from './joint'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import type { PhantomSupply } from '../gear/chain-traits'

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
export function phantomUses(session: Session): PhantomUse[] {
  const uses: PhantomUse[] = []
  session.strips.forEach((strip) => {
    const stages = stagesOf(session, strip)
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

/** One 48 V switch: everything that it feeds, and what it should be. */
export interface PhantomSwitch {
  readonly id: string
  /** An input of it, where it is named and switched. */
  readonly stage: PhantomSupply['stage']
  readonly bank: string | undefined
  readonly on: boolean
  readonly uses: readonly FedUse[]
  readonly needing: readonly FedUse[]
  readonly harmed: readonly FedUse[]
  /**
   * On where something needs it, off where nothing does or something must not get it. Where both meet on one switch that is a conflict:
   * no setting of it is right, and nothing may be said past that.
   */
  readonly should: 'on' | 'off' | 'conflict'
}

/** Every 48 V switch of the session that can give 48 V, in the order of the strips: the one place that decides what it should be. */
export function phantomSwitches(uses: readonly PhantomUse[]): PhantomSwitch[] {
  const ids = [...new Set(uses.filter(isFed).map(({ supply }) => supply.switchId))]
  return ids.flatMap((id) => phantomSwitch(uses, id) ?? [])
}

/** One of them; `null` where it cannot give 48 V at all. */
export function phantomSwitch(uses: readonly PhantomUse[], id: string): PhantomSwitch | null {
  const fed = usesOn(uses, id)
  const first = fed.find(({ supply }) => supply.can)
  if (!first) return null
  const of = (attitude: PhantomAttitude) => fed.filter((use) => use.attitude === attitude)
  const [needing, harmed] = [of('needed'), of('harmful')]
  return {
    id,
    stage: first.supply.stage,
    bank: first.supply.bank,
    on: fed.some(({ supply }) => supply.on),
    uses: fed,
    needing,
    harmed,
    should: needing.length > 0 && harmed.length > 0 ? 'conflict' : needing.length > 0 ? 'on' : 'off',
  }
}

/** The names of what some uses are, each once: “A and B”. */
export const usersText = (uses: readonly PhantomUse[]): string => {
  const names = [...new Set(uses.map(({ user }) => `“${user.gear.name}”`))]
  return names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
}

/** The ways out of a conflict on one switch. */
export const CONFLICT_WAYS =
  'Use an input on another bank, a separate 48 V supply, or another microphone for one of the two'

/** A change of the switch that feeds an input, for every input of the session that it feeds. */
export const phantomChanges = (uses: readonly PhantomUse[], stage: string, to: boolean): SettingChange[] => {
  const own = uses.find((use) => use.supply?.stage.id === stage)
  if (!own) return []
  return uses
    .filter((use) => use.supply?.switchId === own.supply?.switchId)
    .map((use) => ({ strip: use.strip, stage: use.supply?.stage.id ?? stage, setting: 'phantom', to }))
}

/** The same switched on, as far as that harms nothing; `null` where it would. `shielded`: what no 48 V can reach any more. */
export function phantomOn(
  uses: readonly PhantomUse[],
  supply: PhantomSupply,
  shielded?: string,
): SettingChange[] | null {
  const found = phantomSwitch(uses, supply.switchId)
  if (!found || found.harmed.some(({ user }) => user.id !== shielded)) return null
  return phantomChanges(uses, supply.stage.id, true)
}
