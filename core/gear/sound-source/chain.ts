import type { ResolvedSource } from './stage'
import type { Room } from '../../model'
import { roomInForce } from '../../model'
import type { Db } from '../../units'
import { db, dbSpl, peakOf, raise, ratioToDb } from '../../units'
import { isMicrophone } from '../microphone/microphone'
import { directivity } from '../microphone/chain'
import type { ResolvedStage } from '../stage'
import type { SourceTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import type { Programme } from '../two-port'

export const soundSourceChain: SourceTraits<ResolvedSource> = {
  ...plain,
  enter: (stage, { next, room }) => soundAtCapsule(stage, next, room),
  isBox: () => false,
  distance: ({ distance }) => distance,
}

/**
 * A sound source as it arrives at the capsule. The room's noise is the same everywhere, so it comes in here unchanged.
 *
 * Off the microphone's axis the capsule is driven less, so that its limit is met by a louder sound.
 */
function soundAtCapsule(stage: ResolvedSource, next: ResolvedStage | undefined, room: Room): Programme {
  const { specs, distance, gear } = stage
  const { ambient } = roomInForce(room)
  const average = raise(specs.level, nearGain(specs.distance, distance, gear.size))
  const peak = peakOf(average, specs.crest)
  const capsule = isMicrophone(next) ? next : undefined
  const maxSpl = capsule?.specs.maxSpl
  return {
    stage: stage.id,
    origin: gear.id,
    unit: 'dBSPL',
    average,
    peak,
    surgePeak: raise(peak, specs.surge),
    ceiling: maxSpl === undefined || !capsule ? null : raise(maxSpl, db(-(directivity(capsule)?.programme ?? 0))),
    noise: ambient === undefined ? [] : [{ name: 'room', level: dbSpl(ambient) }],
  }
}

/**
 * What another distance than the stated one gains.
 *
 * A point source in a free field: −20 lg(d/d₀). A source of some size, as an incoherent disc of radius r on its axis:
 * 10 lg[ln(1 + r²/d²)/ln(1 + r²/d₀²)], less than the former close by (room acoustics).
 * Examples: 0.1 m against 1 m: 20 dB; r 0.5 m: 11.64 dB; r 0.05 m: 19.51 dB.
 */
export function nearGain(stated: number, distance: number, size: number | undefined): Db {
  if (size === undefined) return ratioToDb(stated / distance)
  const half = size / 2
  return db(10 * Math.log10(Math.log1p((half / distance) ** 2) / Math.log1p((half / stated) ** 2)))
}
