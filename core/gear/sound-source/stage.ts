import { inForce } from '../../model'
import type { Metres } from '../../units'
import type { Placed } from '../placed'
import type { SoundSource } from './sound-source'

/** A sound source where it stands: how far from the microphone. */
export interface ResolvedSource extends Placed {
  readonly kind: 'sound-source'
  readonly gear: SoundSource
  readonly specs: SoundSource['specs']
  readonly distance: Metres
}

export function joinSource(stage: Placed, gear: SoundSource): ResolvedSource {
  const specs = inForce(gear)
  return { kind: 'sound-source', ...stage, gear, specs, distance: stage.settings.distance ?? specs.distance }
}
