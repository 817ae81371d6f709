import type { Room, System } from '../../session'
import { programmerError } from '../programmer-error'
import type { ResolvedStage } from '../resolve'
import type { Programme, TwoPort } from '../two-port'
import { compileInterfaceInput } from './interface-input'
import { compileMicrophone } from './microphone'
import { compileSoundSource } from './sound-source'

export interface Surroundings {
  readonly system: System
  readonly room: Room
}

export interface CompiledStrip {
  readonly programme: Programme
  readonly twoPorts: readonly TwoPort[]
}

/** A strip as the cascade takes it: the programme that enters, and a two-port for every further stage. */
export function compileStrip(stages: readonly ResolvedStage[], surroundings: Surroundings): CompiledStrip {
  const [source, ...rest] = stages
  if (source?.kind !== 'sound-source') throw programmerError('a strip that was read begins with a source')
  return {
    programme: compileSoundSource(source, rest[0], surroundings.room),
    twoPorts: rest.map((stage, i) => compileStage(stage, rest[i + 1], surroundings)),
  }
}

function compileStage(stage: ResolvedStage, next: ResolvedStage | undefined, { system }: Surroundings): TwoPort {
  switch (stage.kind) {
    case 'microphone': return compileMicrophone(stage, next)
    case 'interface': return compileInterfaceInput(stage, system)
    case 'sound-source': throw programmerError('a source can only stand first')
  }
}
