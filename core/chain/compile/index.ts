import type { Room, System } from '../../session'
import { dbfs } from '../../units'
import { behindJoint, jointGain } from '../joint'
import { wordLengthNoise } from '../noise'
import { programmerError } from '../programmer-error'
import type { ResolvedStage } from '../resolve'
import type { Programme, TwoPort } from '../two-port'
import { compileBooster, compileDeskChannel, compilePreamp } from './amplifiers'
import { compileElectricSource } from './electric-source'
import { compileInterfaceInput } from './interface-input'
import { compileDigitalInput, compileFader, compileLink, compileProcessor } from './line-stages'
import { compileMicrophone } from './microphone'
import { compileDiBox, compilePad } from './passive'
import { compilePlayback } from './playback'
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
  if (!source) throw programmerError('a strip that was read has stages')
  return {
    programme: compileSource(source, rest[0], surroundings),
    twoPorts: rest.map((stage, i) => {
      const twoPort = behindJoint(compileStage(stage, rest[i + 1]), jointGain(stages[i] as ResolvedStage, stage))
      return i === rest.length - 1 && twoPort.unit === 'dBFS' ? intoFile(twoPort, surroundings.system) : twoPort
    }),
  }
}

function compileSource(source: ResolvedStage, next: ResolvedStage | undefined, { room }: Surroundings): Programme {
  switch (source.kind) {
    case 'sound-source':
      return compileSoundSource(source, next, room)
    case 'electric-source':
      return compileElectricSource(source, next)
    case 'playback':
      return compilePlayback(source)
    default:
      throw programmerError('a strip that was read begins with a source')
  }
}

function compileStage(stage: ResolvedStage, next: ResolvedStage | undefined): TwoPort {
  switch (stage.kind) {
    case 'microphone':
      return compileMicrophone(stage, next)
    case 'pad':
      return compilePad(stage)
    case 'di-box':
      return compileDiBox(stage)
    case 'booster':
      return compileBooster(stage)
    case 'preamp':
      return compilePreamp(stage)
    case 'desk-channel':
      return compileDeskChannel(stage)
    case 'processor':
      return compileProcessor(stage)
    case 'fader':
      return compileFader(stage)
    case 'link':
      return compileLink(stage)
    case 'interface':
      return compileInterfaceInput(stage)
    case 'digital-input':
      return compileDigitalInput(stage)
    default:
      throw programmerError('a source can only stand first')
  }
}

/** The last digital stage writes the file: its word length makes noise and, unless it is floating point, clips at 0 dBFS. */
function intoFile(twoPort: TwoPort, { bitDepth }: System): TwoPort {
  const level = wordLengthNoise(bitDepth)
  if (level === null) return twoPort
  return { ...twoPort, outputCeiling: dbfs(0), noise: [...twoPort.noise, { name: 'word-length', level }] }
}
