import type { Draft, Mend } from '../../session'
import { isBus } from '../../session'
import { db, dbToRatio, formatDecimal } from '../../units'
import { padOf } from '../remedies'
import { indexOf, lowered, setting, turnable } from './controls'
import type { Check, StripView } from './view'
import { NOTHING, gearName, microphones, perStage, source } from './view'

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`

/** The capsule overloads before any gain: only less sound at it helps. */
export const capsuleOverload: Check = (view) => {
  const point = view.points[0]
  const microphone = microphones(view)[0]
  const from = source(view)
  const ceiling = point?.ceiling ?? null
  if (!point || !microphone || !from || ceiling === null) return []
  const found = (code: Draft['code'], severity: Draft['severity'], over: number, what: string): Draft[] => [
    {
      code,
      severity,
      stage: microphone.id,
      message: `${what} at the capsule is ${dB(over)} over the maximum SPL of "${microphone.gear.name}", ${formatDecimal(ceiling, 0)} dB SPL. No gain setting mends that.`,
      action: `Move it to at least ${formatDecimal(from.distance * dbToRatio(db(over)), 2)} m, or use a microphone with a higher maximum SPL.`,
    },
  ]
  if (point.peak > ceiling) return found('capsule-overload', 'stop', point.peak - ceiling, 'The rehearsed peak')
  if (point.surgePeak > ceiling)
    return found('capsule-overload-surge', 'caution', point.surgePeak - ceiling, 'The surge')
  return []
}

/** A stage on the way is overdriven: the distortion stays, whatever is turned down behind it. */
export const overdriven = perStage((view, stage, i): readonly Draft[] => {
  const point = view.points[i]
  // What a sum does to its own stage is said of the sum.
  const isSum = i === 0 && isBus(view.strip) && point?.unit === 'dBu' && (point.headroom ?? 0) < 0
  const isRead = i === view.place?.index && (view.place.meter === 'converter' || view.place.meter === 'file')
  if (
    !point ||
    isRead ||
    isSum ||
    point.headroom === null ||
    stage.kind === 'sound-source' ||
    stage.kind === 'microphone'
  )
    return NOTHING
  const over = -point.headroom
  const surgeOver = -(point.surgeHeadroom ?? point.headroom)
  if (surgeOver <= 0) return NOTHING
  const { name } = stage.gear
  if (stage.driven) {
    return [
      {
        code: 'driven',
        severity: 'note',
        stage: stage.id,
        message: `"${name}" is driven ${dB(Math.max(over, surgeOver))} into clipping on purpose.`,
        action: 'What follows carries this distortion; set the later gains for level alone.',
      },
    ]
  }
  const rehearsed = over > 0
  const by = rehearsed ? over + 1 : surgeOver
  return [
    {
      code: rehearsed ? 'overdriven' : 'surge-overdrives',
      severity: rehearsed ? 'stop' : 'caution',
      stage: stage.id,
      message: rehearsed
        ? `"${name}" is overdriven by ${dB(over)} at the rehearsed peak.${hiddenWords(view, i)}`
        : `"${name}" fits now, but the surge overdrives it by ${dB(surgeOver)}.`,
      action: `Bring ${dB(by)} less to it: a lower output, a pad or more distance before it. Turning down behind it only makes the distortion quieter.`,
      mends: () => [...turnDowns(view, i, by), ...padBefore(view, i, by)],
    },
  ]
})

/** An early clip that no later meter shows. */
function hiddenWords(view: StripView, at: number): string {
  const { place } = view
  const end = place && place.index > at && place.meter === 'converter' ? view.points[place.index] : undefined
  if (!end || end.headroom === null || end.headroom <= 0) return ''
  return ` The recorder reads ${formatDecimal(end.peak, 1)} dBFS and does not show it.`
}

/** What can be turned down for it, from the stage's own gain towards the source; whether it helps is for the trial to say. */
function turnDowns(view: StripView, at: number, by: number): Mend[] {
  return turnable(view, at)
    .reverse()
    .flatMap((control) => {
      const to = lowered(control, by)
      if (to === null || indexOf(view, control) > at) return []
      return [
        {
          action: `Turn the ${control.setting} of "${gearName(view, control.stage)}" down to ${formatDecimal(to, 1)} dB; turning down behind it only makes the distortion quieter.`,
          changes: [setting(view, control, to)],
        },
      ]
    })
}

function padBefore(view: StripView, at: number, by: number): Mend[] {
  const [before, stage] = [view.stages[at - 1], view.stages[at]]
  if (!before || !stage || view.points[at - 1]?.unit !== 'dBu' || view.points[at]?.unit !== 'dBu') return []
  if (
    'pad' in stage.settings &&
    stage.settings.pad === false &&
    'specs' in stage &&
    'pad' in stage.specs &&
    stage.specs.pad > 0
  ) {
    return [
      {
        action: `Put the pad of ${formatDecimal(stage.specs.pad, 0)} dB of "${stage.gear.name}" in.`,
        changes: [{ strip: view.strip.id, stage: stage.id, setting: 'pad', to: true }],
      },
    ]
  }
  const loss = Math.ceil(by) + 1
  if (loss > LARGEST_PAD) return []
  return [
    {
      action: `Put a pad of ${loss} dB before "${stage.gear.name}".`,
      changes: [{ do: 'insert', strip: view.strip.id, index: at, gear: padOf(view.session, loss, before, stage) }],
    },
  ]
}

/** No usual pad is larger (common practice, no source). */
const LARGEST_PAD = 40
