import type { Room } from '../../session'
import { dbSpl, peakOf, raise, ratioToDb } from '../../units'
import type { ResolvedSource, ResolvedStage } from '../resolve'
import type { Programme } from '../two-port'

/**
 * A sound source as it arrives at the capsule.
 *
 * Inverse distance law for a point source in a free field, −20 lg(d/d₀): close to a large source, or far away in a
 * live room, the level falls less than this. The room's noise is the same everywhere, so it comes in here unchanged.
 */
export function compileSoundSource(stage: ResolvedSource, next: ResolvedStage | undefined, room: Room): Programme {
  const { specs, distance } = stage
  const average = raise(specs.level, ratioToDb(specs.distance / distance))
  const peak = peakOf(average, specs.crest)
  return {
    stage: stage.id,
    unit: 'dBSPL',
    average,
    peak,
    surgePeak: raise(peak, specs.surge),
    ceiling: next?.kind === 'microphone' ? (next.specs.maxSpl ?? null) : null,
    noise: room.ambient === undefined ? [] : [{ name: 'room', level: dbSpl(room.ambient) }],
  }
}
