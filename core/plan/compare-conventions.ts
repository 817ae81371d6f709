import { meterReading } from '../chain/target-window'
import type { NoiseName } from '../gear/two-port'
import { alone, ofStrip } from '../evaluation/alone'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { ConventionId } from '../model'
import type { Session } from '../session'
import { conventionIds } from '../model'
import type { PlannedGain } from './plan-strip'
import { gainsOf, planStrip } from './plan-strip'
import { offTarget } from './reasons'

/** What a level convention comes to on a strip, set as it would be planned for it. */
export interface ConventionRow {
  convention: ConventionId
  gains: PlannedGain[]
  /** All gains together, dB. */
  gain: number
  average: number
  peak: number
  /** What the convention itself reads, on its own meter. */
  reading: number
  /** How far the plan lands outside the window, dB; 0 inside. */
  off: number
  /** Headroom at the converter after the surge, dB. */
  afterSurge: number
  snr: number | null
  floor: { name: NoiseName; share: number } | null
  /** Signal-to-noise lost against the convention that has most, dB. */
  snrCost: number | null
  /** Headroom after the surge lost against the convention that has most, dB. */
  headroomCost: number
}

/** All conventions on one strip, side by side. @returns an empty list for a strip that reaches no recorder. */
export function compareConventions(session: Session, stripId: string): ConventionRow[] {
  const strip = session.strips.find((each) => each.id === stripId)
  if (!strip) return []
  const rows = conventionIds.flatMap((convention): Omit<ConventionRow, 'snrCost' | 'headroomCost'>[] => {
    const aimed = { ...session, target: convention }
    const { allocation } = planStrip(aimed, strip)
    const { place, window } = allocation
    const evaluated = ofStrip(evaluateSession(alone(aimed, allocation.strip)), stripId)
    const recorder = evaluated?.points.findLast((each) => each.unit === 'dBFS')
    const read = place && evaluated?.points[place.index]
    if (!evaluated || !recorder || !read) return []
    const converter = place.meter === 'desk' ? recorder : read
    const greatest = evaluated.noise[0]
    const gains = gainsOf(allocation)
    return [
      {
        convention,
        gains,
        gain: gains.reduce((sum, each) => sum + each.value, 0),
        average: converter.average,
        peak: converter.peak,
        reading: meterReading(read, place, window),
        off: offTarget(allocation),
        afterSurge: converter.surgeHeadroom ?? -converter.surgePeak,
        snr: evaluated.points.at(-1)?.snr ?? null,
        floor: greatest ? { name: greatest.name, share: greatest.share } : null,
      },
    ]
  })
  const bestSnr = Math.max(...rows.map((row) => row.snr ?? -Infinity))
  const mostHeadroom = Math.max(...rows.map((row) => row.afterSurge))
  return rows.map((row) => ({
    ...row,
    snrCost: row.snr === null ? null : bestSnr - row.snr,
    headroomCost: mostHeadroom - row.afterSurge,
  }))
}
