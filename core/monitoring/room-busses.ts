import { isLoudspeaker, isSoundSource } from '../gear'
import { gearById, stagesOf } from '../resolved/resolve-session'
import type { Feedback } from '../evaluation/feedback'
import type { Evaluation } from '../evaluation/evaluate-session'
import type { Session } from '../session'
import type { Strip } from '../model'
import { isBus } from '../model'
import { potentialAcousticGain } from './acoustic-gain'

/** A bus that is heard in the room, and its gain before feedback. */
export interface RoomBus {
  bus: Strip
  feedback: Feedback | null
  /**
   * What the distances allow of acoustic gain with as many microphones as are open in it, by the nearest source; `null` without a
   * layout or a microphone.
   */
  potential: number | null
}

/** The busses that end in a loudspeaker. */
export function roomBusses(session: Session, evaluation: Evaluation): RoomBus[] {
  const gear = gearById(session)
  const { layout } = session.room
  return session.strips.flatMap((bus, i) => {
    const last = gear.get(bus.stages.at(-1)?.gear ?? '')
    if (!isBus(bus) || !isLoudspeaker(last)) return []
    const feedback = evaluation.strips[i]?.feedback ?? null
    const distances = session.strips.flatMap((strip) => {
      const open = feedback?.microphones.some(({ strips }) => strips.includes(strip.id))
      const source = open ? stagesOf(session, strip)[0] : undefined
      return isSoundSource(source) ? [source.distance] : []
    })
    const potential =
      layout && distances.length > 0
        ? potentialAcousticGain({
            ...layout,
            sourceToMicrophone: Math.max(...distances),
            openMicrophones: distances.length,
          })
        : null
    return [{ bus, feedback, potential }]
  })
}
