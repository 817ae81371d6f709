import type { Room, System } from '../../session'
import { dbfs } from '../../units'
import { behindJoint, jointGain } from '../joint'
import { wordLengthNoise } from '../noise'
import { programmerError } from '../programmer-error'
import type { ResolvedStage } from '../resolve'
import type { Programme, TwoPort } from '../two-port'
import { isSource, lineTraits, sourceTraits } from './kinds'

interface Surroundings {
  readonly system: System
  readonly room: Room
}

interface CompiledStrip {
  readonly programme: Programme
  readonly twoPorts: readonly TwoPort[]
}

/** A strip as the cascade takes it: the programme that enters, and a two-port for every further stage. */
export function compileStrip(stages: readonly ResolvedStage[], { room, system }: Surroundings): CompiledStrip {
  const first = stages[0]
  if (!first || !isSource(first)) throw programmerError('a strip that was read begins with a source')
  const around = (i: number) => ({ before: stages[i - 1], next: stages[i + 1], room, system })
  return {
    programme: sourceTraits(first).enter(first, around(0)),
    twoPorts: stages.slice(1).map((stage, k) => {
      if (isSource(stage)) throw programmerError('a source can only stand first')
      const i = k + 1
      const joint = jointGain(stages[i - 1] as ResolvedStage, stage, stages[i - 2])
      const twoPort = behindJoint(lineTraits(stage).compile(stage, around(i)), joint)
      return i === stages.length - 1 && twoPort.unit === 'dBFS' ? intoFile(twoPort, system) : twoPort
    }),
  }
}

/** The last digital stage writes the file: its word length makes noise and, unless it is floating point, clips at 0 dBFS. */
function intoFile(twoPort: TwoPort, { bitDepth }: System): TwoPort {
  const level = wordLengthNoise(bitDepth)
  if (level === null) return twoPort
  return { ...twoPort, outputCeiling: dbfs(0), noise: [...twoPort.noise, { name: 'word-length', level }] }
}
