import { listenerGain } from '../chain/compile/loudspeaker'
import type { Walked } from '../chain/graph'
import type { ResolvedStage } from '../chain/resolve'
import type { Strip } from '../session'
import { leadsTo } from '../session'
import type { Around } from './around'

/** A microphone that is heard by a loudspeaker of its own room. */
export interface OpenMicrophone {
  /** The strips that begin with its sound. */
  strips: string[]
  /** What is left of its sound at itself after once around: from the capsule to the loudspeaker and back, dB. */
  loop: number
  /** The margin without it, dB; `null` where nothing is left that could howl. */
  without: number | null
  /** The margin with its way into the loudspeaker 6 dB lower. */
  lowered: number
}

export interface Feedback {
  /** What can still be turned up before it howls, 6 dB kept back; `null` where the distance is not given. */
  margin: number | null
  microphones: OpenMicrophone[]
}

/** Kept back from the brink of feedback, dB (Davis and Patronis, Sound System Engineering; from memory). */
const STABILITY = 6

const powerOf = (decibels: number) => 10 ** (decibels / 10)
const marginOf = (loops: readonly number[]) =>
  -10 * Math.log10(loops.reduce((sum, loop) => sum + powerOf(loop), 0)) - STABILITY

/**
 * The feedback margin of a bus that ends in a loudspeaker: −10 lg Σ 10^(loop/10) − 6 over the microphones that feed it, each
 * loop being what the loudspeaker gives of its sound at 1 m, − 20 lg D₁, less that sound at the capsule. With n equal loops that
 * is potential acoustic gain less the gain that is set, 10 lg NOM included (Davis and Patronis, from memory).
 *
 * Cautious: the microphones are taken as open to all sides, the room as without walls.
 */
export function feedbackOf(
  { session, pointsOf }: Pick<Around, 'session' | 'pointsOf'>,
  bus: Strip,
  stages: readonly ResolvedStage[],
  { points, origins }: Walked,
): Feedback | null {
  const last = stages.at(-1)
  const end = points.at(-1)
  if (last?.kind !== 'loudspeaker' || !end) return null
  const distance = session.room.layout?.microphoneToLoudspeaker
  const kinds = new Map(session.gear.map((item) => [item.id, item.kind]))
  const loops = origins.flatMap(({ source, below }) => {
    if (kinds.get(source) !== 'sound-source') return []
    const strips = session.strips.filter(
      (strip) => strip.stages[0]?.gear === source && leadsTo(session.strips, strip, bus.id),
    )
    const capsule = Math.min(...strips.map(({ id }) => pointsOf(id)?.[0]?.average ?? Infinity))
    if (!Number.isFinite(capsule)) return []
    const atMetre = end.average - below - listenerGain(last)
    return [{ strips: strips.map(({ id }) => id), loop: atMetre - 20 * Math.log10(distance ?? 1) - capsule }]
  })
  if (loops.length === 0) return null
  const all = loops.map(({ loop }) => loop)
  return {
    margin: distance === undefined ? null : marginOf(all),
    microphones: loops
      .map((each, i) => {
        const others = all.filter((_, k) => k !== i)
        return {
          ...each,
          without: others.length === 0 ? null : marginOf(others),
          lowered: marginOf([...others, each.loop - 6]),
        }
      })
      .sort((a, b) => b.loop - a.loop),
  }
}
