import type { PhantomAttitude, Room, System } from '../model'
import type { Resolved, ResolvedInput, ResolvedStage } from '../resolved/resolve'
import type { Programme, TwoPort } from './two-port'

/** How strong an output is, or how strong a signal an input is made for. */
export type LevelClass = 'mic' | 'instrument' | 'line'

/** A box that could give 48 V, and the switch that decides about it. */
export interface PhantomSupply {
  readonly stage: ResolvedInput | Resolved<'preamp'> | Resolved<'desk-channel'>
  readonly can: boolean
  readonly on: boolean
  /** Inputs with the same switch get 48 V together. */
  readonly switchId: string
  readonly bank: string | undefined
}

/** What stands around a stage. */
export interface Around {
  readonly before: ResolvedStage | undefined
  readonly next: ResolvedStage | undefined
  readonly room: Room
  readonly system: System
}

/**
 * All that the chain has to know of a kind of stage, `S` being the stage joined with its gear.
 * A new kind is one such object in `core/chain/compile`, and one for the file in `core/model/gear`.
 */
interface StageTraits<S> {
  /** The class of its output; `null` where the signal is not on a wire. `before`: that of the stage before it. */
  outputClass(stage: S, before: LevelClass | null): LevelClass | null
  /** What its input is made for; `null` where it takes anything, or is not on a wire. */
  inputClass(stage: S): LevelClass | null
  /** What 48 V at its output does to it; `null` where none can reach it. */
  phantomAttitude(stage: S): PhantomAttitude | null
  /** Whether it can give 48 V to what stands before it; `null` where it has no such switch. */
  phantomSupply(stage: S): PhantomSupply | null
  /** Whether 48 V from behind passes through it towards the source. */
  readonly passesPhantom: boolean
  /** Whether it has a mains or battery switch, which has its turn in the order of switching on. */
  powered(stage: S): boolean
  /** A winding or coil at its output: with one leg grounded nothing is lost. */
  floats(stage: S): boolean
}

export interface SourceTraits<S> extends StageTraits<S> {
  enter(stage: S, around: Around): Programme
}
export interface LineTraits<S> extends StageTraits<S> {
  compile(stage: S, around: Around): TwoPort
}

/** What most kinds have in common. */
export const plain = {
  outputClass: () => null,
  inputClass: () => null,
  phantomAttitude: () => null,
  phantomSupply: () => null,
  passesPhantom: false,
  powered: () => false,
  floats: () => false,
} as const satisfies StageTraits<never>
