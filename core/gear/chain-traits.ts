import type { PhantomAttitude, Plug } from './common'
import type { KnobTable } from './knob'
import type { Room, System, Tolerance } from '../model'
import type { Ohms } from '../units'
import type { FieldTable } from '../model/field'
import type { Resolved, ResolvedStage } from './stage'
import type { ResolvedInput } from './interface/stage'
import type { Gear } from './kinds'
import { traitsOf } from './kinds'
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
  readonly next: ResolvedStage | undefined
  /** Input impedance of the next stage. */
  readonly load: Ohms | undefined
  /** What the stage before drives this one from. */
  readonly source: Ohms | undefined
  /** The resistance of a passive stage before this one, whose thermal noise arrives with the signal. */
  readonly sourceThermal: Ohms | undefined
  readonly room: Room
  readonly system: System
}

/** One of several sockets of a box. */
export interface Port {
  readonly side: 'inputs' | 'outputs'
  readonly id: string
}

/**
 * All that the chain, the run sheet and the uncertainties have to know of a kind of stage, `S` being the stage joined with its gear.
 * A new kind is a folder with one such object in its `chain.ts`, and one for file and forms (`GearTraits`).
 */
export interface StageTraits<S> {
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
  /** Whether it amplifies from microphone level. */
  liftsMicrophones(stage: S): boolean
  /** Whether volts, or a sound, become numbers in it. */
  converts(stage: S): boolean
  /** Whether it is a part of a mixing desk, whose meter shows what it gives. */
  isOfDesk(stage: S): boolean

  /** Its input impedance, where it has one. */
  inputImpedance(stage: S): Ohms | undefined
  /** The impedance that it drives the next stage from. `source`: that of the stage before it. */
  outputImpedance(stage: S, source: Ohms | undefined): Ohms | undefined
  /**
   * The resistance whose thermal noise stands at its output, where it is passive: a pickup, a ribbon or moving coil, a pad, a DI box.
   * An active output has noise of its own in its figures.
   */
  thermalResistance(stage: S, source: Ohms | undefined): Ohms | undefined
  /** Whether its point shows the level as it is loaded by the next stage; every other one’s is that of the open circuit. */
  readonly showsLoaded: boolean
  /** The socket that it takes its signal with. */
  inPlug(stage: S): Plug | undefined

  /** Its socket, of a box with several. */
  port(stage: S): Port | null
  /** The figures that are stated of it, and what they belong to. */
  figures(stage: S): { readonly owner: Owner; readonly table: FieldTable }
  /** Marks of its gain knob. */
  knob(stage: S): KnobTable | undefined
  /** How exactly its gain stands where it is said to; numbers in a host are exact. */
  gainTolerance(stage: S): Tolerance | null
  /** The distance that its level depends on, m. */
  distance(stage: S): number | undefined
  /** Whether its gain is a fader, which rests at its zero mark and is mixed with. */
  readonly gainIsFader: boolean
  /** Whether its gain is worked in numbers, behind a converter. An interface input’s stands before its own. */
  inNumbers(stage: S): boolean

  /** Whether cables can be plugged into it or out of it; a fader or plug-in of the host is no box. */
  isBox(stage: S): boolean
  /** What its input is switched to, on the run sheet; `null` where there is nothing to switch. */
  inputWords(stage: S): string | null
}

/** Anything with figures, of which some may be measured or assumed. */
export interface Owner {
  readonly specs: object
  readonly measured?: object | undefined
  readonly assumed?: string[] | undefined
}

export interface SourceTraits<S> extends StageTraits<S> {
  enter(stage: S, around: Around): Programme
}
export interface LineTraits<S> extends StageTraits<S> {
  compile(stage: S, around: Around): TwoPort
}

interface AnyStage {
  readonly gear: object
  readonly settings: ResolvedStage['settings']
  readonly specs?: object
}
const ohmsOf = ({ specs }: AnyStage, key: 'inputImpedance' | 'outputImpedance'): Ohms | undefined =>
  (specs as { [K in typeof key]?: Ohms } | undefined)?.[key]

/** What most kinds have in common. */
export const plain = {
  outputClass: () => null,
  inputClass: () => null,
  phantomAttitude: () => null,
  phantomSupply: () => null,
  passesPhantom: false,
  powered: () => false,
  floats: () => false,
  liftsMicrophones: () => false,
  converts: () => false,
  isOfDesk: () => false,
  inputImpedance: (stage: AnyStage) => ohmsOf(stage, 'inputImpedance'),
  outputImpedance: (stage: AnyStage) => ohmsOf(stage, 'outputImpedance'),
  thermalResistance: () => undefined,
  showsLoaded: false,
  inPlug: ({ gear }: AnyStage) => (gear as { plugs?: { in?: Plug } }).plugs?.in,
  port: () => null,
  figures: ({ gear }: AnyStage) => ({ owner: gear as Owner, table: traitsOf(gear as Gear).fields(gear as Gear) }),
  knob: () => undefined,
  gainTolerance: () => null,
  distance: () => undefined,
  gainIsFader: false,
  inNumbers: () => false,
  isBox: () => true,
  inputWords: ({ settings }: AnyStage) => (settings.pad === undefined ? null : 'switches'),
} as const satisfies StageTraits<AnyStage>
