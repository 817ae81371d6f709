import type { Finding } from '../../session'
import { db, dbToRatio, formatDecimal } from '../../units'
import { gainControls, stripControls } from '../gain-control'
import { settableGain } from '../settable-gain'
import type { Check, StripView } from './view'
import { NOTHING, gearName, microphones, perStage, recorded, source } from './view'

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`

/** The capsule overloads before any gain: only less sound at it helps. */
export const capsuleOverload: Check = (view) => {
  const point = view.points[0]
  const microphone = microphones(view)[0]
  const from = source(view)
  const ceiling = point?.ceiling ?? null
  if (!point || !microphone || !from || ceiling === null) return []
  const found = (code: string, severity: Finding['severity'], over: number, what: string): Finding[] => [
    {
      code,
      severity,
      stage: microphone.id,
      message: `${what} at the capsule is ${dB(over)} over what "${microphone.gear.name}" takes, ${formatDecimal(ceiling, 0)} dB SPL. No gain setting mends that.`,
      action: `Move it to at least ${formatDecimal(from.distance * dbToRatio(db(over)), 2)} m, or use a microphone with a higher maximum level.`,
    },
  ]
  if (point.peak > ceiling) return found('capsule-overload', 'stop', point.peak - ceiling, 'The rehearsed peak')
  if (point.surgePeak > ceiling)
    return found('capsule-overload-surge', 'caution', point.surgePeak - ceiling, 'The surge')
  return []
}

/** Room that should be left above the surge: common practice, no source. */
const LEAST_RESERVE = 6

/** What is left at the recorder now, and after the surge. */
export const recorderHeadroom: Check = (view) => {
  const end = recorded(view)
  const ceiling = end?.point.ceiling ?? null
  if (!end || ceiling === null) return []
  const { point } = end
  const now = ceiling - point.peak
  const afterSurge = ceiling - point.surgePeak
  const stage = end.control?.stage ?? end.stage.id
  const found = (code: string, severity: Finding['severity'], message: string, action: string): Finding[] => [
    { code, severity, stage, message, action },
  ]
  if (now < 0) {
    return found(
      'clips',
      'stop',
      `The rehearsed peak is ${dB(now)} over 0 dBFS: ${end.stage.kind === 'interface' ? 'the converter' : 'the file'} clips now.`,
      `Turn the gain down by at least ${dB(LEAST_RESERVE - afterSurge)}; nothing behind the converter can mend it.`,
    )
  }
  if (afterSurge < 0) {
    return found(
      'surge-clips',
      'caution',
      `It fits now, but the surge will be ${dB(afterSurge)} over 0 dBFS.`,
      `Turn the gain down by at least ${dB(LEAST_RESERVE - afterSurge)}, before the take.`,
    )
  }
  if (afterSurge < LEAST_RESERVE) {
    const intended = view.target.high > -LEAST_RESERVE
    return found(
      'little-headroom',
      intended ? 'note' : 'caution',
      `After the surge ${dB(afterSurge)} are left before 0 dBFS.`,
      intended
        ? `The chosen target works that close to clipping. For ${LEAST_RESERVE} dB of reserve turn down by ${dB(LEAST_RESERVE - afterSurge)}, or choose a lower target.`
        : `Turn the gain down by ${dB(LEAST_RESERVE - afterSurge)} for a reserve of ${LEAST_RESERVE} dB.`,
    )
  }
  return []
}

/** A stage on the way is overdriven: the distortion stays, whatever is turned down behind it. */
export const overdriven = perStage((view, stage, i): readonly Finding[] => {
  const point = view.points[i]
  if (
    !point ||
    i === view.stages.length - 1 ||
    point.ceiling === null ||
    point.unit === 'dBSPL' ||
    stage.kind === 'microphone'
  )
    return NOTHING
  const over = point.peak - point.ceiling
  const surgeOver = point.surgePeak - point.ceiling
  if (surgeOver <= 0) return NOTHING
  const hidden = hiddenWords(view, over)
  if (stage.driven) {
    return [
      {
        code: 'driven',
        severity: 'note',
        stage: stage.id,
        message: `"${stage.gear.name}" is driven ${dB(Math.max(over, surgeOver))} into clipping on purpose.`,
        action: 'What follows carries this distortion; set the later gains for level alone.',
      },
    ]
  }
  const turn = turnDown(view, i, over > 0 ? over + 1 : surgeOver)
  return [
    over > 0
      ? {
          code: 'overdriven',
          severity: 'stop',
          stage: stage.id,
          message: `"${stage.gear.name}" is overdriven by ${dB(over)} at the rehearsed peak.${hidden}`,
          ...turn,
        }
      : {
          code: 'surge-overdrives',
          severity: 'caution',
          stage: stage.id,
          message: `"${stage.gear.name}" fits now, but the surge overdrives it by ${dB(surgeOver)}.`,
          ...turn,
        },
  ]
})

/** An early clip that no later meter shows. */
function hiddenWords(view: StripView, over: number): string {
  const end = view.points.at(-1)
  if (over <= 0 || !end || end.ceiling === null || end.headroom === null || end.headroom <= 0) return ''
  return ` The recorder reads ${formatDecimal(end.peak, 1)} dBFS and does not show it.`
}

/** What stands before the place that clips, and can be turned down. */
function turnDown(view: StripView, at: number, by: number): Pick<Finding, 'action' | 'changes'> {
  const stage = view.stages[at]
  const own = stage ? gainControls(stage).filter((each) => each.setting === 'gain' && stage.kind !== 'fader') : []
  const control = [...stripControls(view.stages.slice(0, at)), ...own].findLast(
    (each) => !each.locked && each.value - by >= each.range.gainMin,
  )
  if (!control)
    return {
      action: `Bring ${dB(by)} less to it: a pad before it, a lower output before it, or more distance. Turning down behind it only makes the distortion quieter.`,
    }
  const to = settableGain(control.range, db(control.value - by)).gain
  return {
    action: `Turn the ${control.setting} of "${gearName(view, control.stage)}" down to ${formatDecimal(to, 1)} dB; turning down behind it only makes the distortion quieter.`,
    changes: [{ strip: view.strip.id, stage: control.stage, setting: control.setting, to }],
  }
}
