import type { LiveSnapshot } from '../measure/live/live-meter'
import { formatDecimal } from '../units'
import type { Lane } from './lane'
import type { Notice } from './notices'
import { isClipped, sounds } from './state'

/** A passage says how loud a performer is from so many seconds on. */
const SETTLED = 8
/** A gain that was turned by less says nothing, dB. */
const TURNED = 3
/** How far one passage is from the next where the gain is left alone, dB (common practice, no source). */
const PASSAGES_APART = 4
/** Something that keeps the level lets this part of a turn through, and its own spread, dB (common practice, no source). */
const KEPT = { part: 0.15, spread: 3 } as const
/** How often something between input and recorder changes the level by itself (common practice, no source). */
const PRIOR = 0.05
/** From here on it is said. */
const LEAST_SURE = 0.6
/** Levels alone prove nothing. */
const MOST_SURE = 0.95

/** How an input was before its gain was turned. */
interface Passage {
  /** Over the lowest, dB. */
  gain: number
  loudest: number
}

/**
 * Notices inputs whose level does not follow their gain: an automatic gain, an “enhancement” of the system, a limiter. Each turn that
 * was heard before and after adds its odds.
 */
export class GainFollowing {
  private before = new Map<string, Passage>()
  private turns = new Map<string, { logOdds: number; turned: number; moved: number }>()

  /** Takes what the inputs show now; nothing of it before a passage has settled. */
  next(lanes: readonly Lane[], snapshots: readonly LiveSnapshot[]): void {
    lanes.forEach((lane, i) => {
      const snapshot = snapshots[i]
      const loudest = snapshot?.passage.loudest ?? null
      // What clips shows no level of its own.
      if (!snapshot || loudest === null || snapshot.passage.seconds < SETTLED) return
      if (!sounds(lane, snapshot.passage.peak) || isClipped(snapshot)) return
      const now = { gain: lane.gainLeft.down, loudest }
      const before = this.before.get(lane.strip)
      this.before.set(lane.strip, now)
      if (before) this.compare(lane.strip, now.gain - before.gain, now.loudest - before.loudest)
    })
  }

  private compare(strip: string, turned: number, moved: number) {
    if (Math.abs(turned) < TURNED) return
    const known = this.turns.get(strip)
    const logOdds = (known?.logOdds ?? Math.log(PRIOR / (1 - PRIOR))) + logOddsOf(turned, moved)
    this.turns.set(strip, { logOdds, turned, moved })
  }

  notices(lanes: readonly Lane[]): Notice[] {
    return lanes.flatMap(({ strip }): Notice[] => {
      const found = this.turns.get(strip)
      const sure = found ? 1 / (1 + Math.exp(-found.logOdds)) : 0
      if (!found || sure < LEAST_SURE) return []
      return [
        {
          id: `follows ${strip}`,
          strip,
          says: `The level does not follow the gain: ${change(found.turned)} gain, ${change(found.moved)} level. Look for automatic gain, “enhancements” or a limiter.`,
          sure: Math.min(MOST_SURE, sure),
          faults: { symptom: 'level-drifts', answers: {} },
        },
      ]
    })
  }
}

/** How much likelier a level that is kept is than one that follows, as a logarithm: two normal laws. */
const logOddsOf = (turned: number, moved: number): number =>
  ((moved - turned) / PASSAGES_APART) ** 2 / 2 -
  ((moved - KEPT.part * turned) / KEPT.spread) ** 2 / 2 +
  Math.log(PASSAGES_APART / KEPT.spread)

const change = (by: number): string => `${formatDecimal(Math.abs(by), 1)} dB ${by < 0 ? 'less' : 'more'}`
