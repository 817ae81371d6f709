import type { Around } from '../gear/chain-traits'
import { inputImpedance, outputImpedance, thermalResistance } from './impedance'
import type { Room, Strip, System } from '../model'
import { feedsOf, isBus } from '../model'
import { db, dbfs, raise } from '../units'
import { behindJoint, jointGain } from './joint'
import { wordLengthNoise } from './noise'
import { programmerError } from './programmer-error'
import type { ResolvedStage } from '../gear/stage'
import type { Programme, TwoPort } from '../gear/two-port'
import { isSource, lineTraits, sourceTraits } from '../gear/chains'

export interface Surroundings {
  readonly system: System
  readonly room: Room
}

export interface CompiledStrip {
  /** What enters a channel; `null` for a bus, which is entered by what feeds it. */
  readonly programme: Programme | null
  readonly twoPorts: readonly TwoPort[]
}

/** A strip as the cascade takes it: the programme that enters, and a two-port for every further stage. */
export function compileStrip(
  strip: Pick<Strip, 'kind' | 'feeds' | 'stages'>,
  stages: readonly ResolvedStage[],
  surroundings: Surroundings,
): CompiledStrip {
  const first = stages[0]
  const fed = isBus(strip)
  if (!first || isSource(first) === fed)
    throw programmerError('a channel that was read begins with a source, a bus with none')
  const twoPorts: TwoPort[] = []
  for (let i = fed ? 0 : 1; i < stages.length; i++) twoPorts.push(compileStage(stages, i, surroundings))
  const last = twoPorts.at(-1)
  if (last?.unit === 'dBFS' && records(strip)) twoPorts[twoPorts.length - 1] = intoFile(last, surroundings.system)
  return {
    programme: isSource(first)
      ? shifted(sourceTraits(first).enter(first, around(stages, 0, surroundings)), first.offset)
      : null,
    twoPorts,
  }
}

/** A programme that is by so much louder than its source says. */
const shifted = (programme: Programme, offset: number): Programme =>
  offset === 0
    ? programme
    : {
        ...programme,
        average: raise(programme.average, db(offset)),
        peak: raise(programme.peak, db(offset)),
        surgePeak: raise(programme.surgePeak, db(offset)),
      }

function around(stages: readonly ResolvedStage[], i: number, { room, system }: Surroundings): Around {
  const [before, next] = [stages[i - 1], stages[i + 1]]
  return {
    next,
    load: inputImpedance(next),
    source: before && outputImpedance(before, undefined),
    sourceThermal: before && thermalResistance(before),
    room,
    system,
  }
}

/** The two-port of a stage where it stands, with the joint before it; `as` another setting of it. */
export function compileStage(
  stages: readonly ResolvedStage[],
  i: number,
  surroundings: Surroundings,
  as: ResolvedStage = stages[i] as ResolvedStage,
): TwoPort {
  if (isSource(as)) throw programmerError('a source can only stand first')
  const before = stages[i - 1]
  const twoPort = lineTraits(as).compile(as, around(stages, i, surroundings))
  const set = before ? behindJoint(twoPort, jointGain(before, as, stages[i - 2])) : twoPort
  return as.offset === 0 ? set : { ...set, gain: db(set.gain + as.offset) }
}

/** Whether a strip's end is written to a file as it is: not where it goes on into a bus. */
export const records = (strip: Pick<Strip, 'feeds' | 'stages'>): boolean => {
  const last = strip.stages.at(-1)?.id
  return feedsOf(strip).every(({ from }) => from !== undefined && from !== last)
}

/** The last digital stage writes the file: its word length makes noise and, unless it is floating point, clips at 0 dBFS. */
function intoFile(twoPort: TwoPort, { bitDepth }: System): TwoPort {
  const level = wordLengthNoise(bitDepth)
  if (level === null) return twoPort
  return { ...twoPort, outputCeiling: dbfs(0), noise: [...twoPort.noise, { name: 'word-length', level }] }
}
