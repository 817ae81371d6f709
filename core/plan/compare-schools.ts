import type { NoiseName } from '../chain/two-port'
import { gearById } from '../chain/resolve'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { SchoolId, Session } from '../session'
import { schoolIds, schools } from '../session'
import type { PlannedGain } from './plan-strip'
import { planStrip } from './plan-strip'

/** What a school of recording level comes to on a strip, set as it would be planned for it. */
export interface SchoolRow {
  school: SchoolId
  gains: PlannedGain[]
  /** All gains together, dB. */
  gain: number
  average: number
  peak: number
  /** Headroom at the recorder after the surge, dB. */
  afterSurge: number
  snr: number | null
  floor: { name: NoiseName; share: number } | null
  /** Signal-to-noise lost against the school that has most, dB. */
  snrCost: number | null
  /** Headroom after the surge lost against the school that has most, dB. */
  headroomCost: number
}

/** All schools on one strip, side by side. @returns an empty list for a strip that reaches no recorder. */
export function compareSchools(session: Session, stripId: string): SchoolRow[] {
  const strip = session.strips.find((each) => each.id === stripId)
  if (!strip) return []
  const gear = gearById(session)
  const rows = schoolIds.flatMap((school): Omit<SchoolRow, 'snrCost' | 'headroomCost'>[] => {
    const { gains, allocation } = planStrip(session, strip, gear, schools[school])
    const evaluated = evaluateSession({ ...session, target: school, strips: [allocation.strip], pairs: undefined })
      .strips[0]
    const end = evaluated?.points.at(-1)
    if (!evaluated || end?.unit !== 'dBFS') return []
    const greatest = evaluated.noise[0]
    return [
      {
        school,
        gains,
        gain: gains.reduce((sum, each) => sum + each.value, 0),
        average: end.average,
        peak: end.peak,
        afterSurge: (end.ceiling ?? 0) - end.surgePeak,
        snr: end.snr,
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
