import type { Finding } from '../../session'
import { db, dbToRatio, formatDecimal } from '../../units'
import type { Check } from './view'
import { microphones, recorded, source } from './view'

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`

/** The capsule overloads before any gain: only less sound at it helps. */
export const capsuleOverload: Check = (view) => {
  const point = view.points[0]
  const microphone = microphones(view)[0]
  const from = source(view)
  const ceiling = point?.ceiling ?? null
  if (!point || !microphone || !from || ceiling === null) return []
  const found = (code: string, severity: Finding['severity'], over: number, what: string): Finding[] => [{
    code, severity, stage: microphone.id,
    message: `${what} at the capsule is ${dB(over)} over what "${microphone.gear.name}" takes, ${formatDecimal(ceiling, 0)} dB SPL. No gain setting mends that.`,
    action: `Move it to at least ${formatDecimal(from.distance * dbToRatio(db(over)), 2)} m, or use a microphone with a higher maximum level.`,
  }]
  if (point.peak > ceiling) return found('capsule-overload', 'stop', point.peak - ceiling, 'The rehearsed peak')
  if (point.surgePeak > ceiling) return found('capsule-overload-surge', 'caution', point.surgePeak - ceiling, 'The surge')
  return []
}

/** Room that should be left above the surge: common practice, no source. */
const LEAST_RESERVE = 6

/** What is left at the recorder now, and after the surge. */
export const recorderHeadroom: Check = (view) => {
  const end = recorded(view)
  const ceiling = end?.point.ceiling ?? null
  if (!end || ceiling === null) return []
  const { input, point } = end
  const now = ceiling - point.peak
  const afterSurge = ceiling - point.surgePeak
  const found = (code: string, severity: Finding['severity'], message: string, action: string): Finding[] =>
    [{ code, severity, stage: input.id, message, action }]
  if (now < 0) {
    return found('clips', 'stop', `The rehearsed peak is ${dB(now)} over 0 dBFS: the converter clips now.`,
      `Turn the gain down by at least ${dB(LEAST_RESERVE - afterSurge)}; nothing behind the converter can mend it.`)
  }
  if (afterSurge < 0) {
    return found('surge-clips', 'caution', `It fits now, but the surge will be ${dB(afterSurge)} over 0 dBFS.`,
      `Turn the gain down by at least ${dB(LEAST_RESERVE - afterSurge)}, before the take.`)
  }
  if (afterSurge < LEAST_RESERVE) {
    const intended = view.target.high > -LEAST_RESERVE
    return found('little-headroom', intended ? 'note' : 'caution', `After the surge ${dB(afterSurge)} are left before 0 dBFS.`,
      intended
        ? `The chosen target works that close to clipping. For ${LEAST_RESERVE} dB of reserve turn down by ${dB(LEAST_RESERVE - afterSurge)}, or choose a lower target.`
        : `Turn the gain down by ${dB(LEAST_RESERVE - afterSurge)} for a reserve of ${LEAST_RESERVE} dB.`)
  }
  return []
}
