import type { Change, Mend } from '../../session'
import { db, dbToRatio, formatShort, metres } from '../../units'
import { inPlug, outPlug } from '../joint'
import { phantomChanges } from '../phantom'
import { inlinePreampOf } from '../remedies'
import type { StripView } from './view'
import { microphones, source } from './view'

/** Closer than this a microphone is at the mouth (common practice, no source), m. */
const CLOSEST = 0.05

/** Going closer, where the inverse distance gives what is missing. */
export function closerMend(view: StripView, short: number): Mend[] {
  const from = source(view)
  if (!from || short <= 0) return []
  const distance = Math.floor(100 * from.distance * dbToRatio(db(-short))) / 100
  if (distance < CLOSEST) return []
  return [
    {
      action: `Go closer: ${formatShort(distance)} m instead of ${formatShort(from.distance)} m.`,
      changes: [{ strip: view.strip.id, stage: from.id, setting: 'distance', to: metres(distance) }],
    },
  ]
}

/** No usual inline preamp gives more (common practice, no source), dB. */
const MOST_INLINE = 28

/**
 * An inline preamp behind a passive microphone: at an XLR that can give 48 V. A condenser would lose its power to it,
 * and inside a USB microphone or at a jack there is no place for one.
 */
export function inlinePreampMend(view: StripView, short: number, settle: (changes: Change[]) => Change[]): Mend[] {
  const microphone = microphones(view)[0]
  const gain = Math.ceil(short)
  const at = view.stages.findIndex((stage) => stage === microphone)
  const next = view.stages[at + 1]
  if (!microphone || !next || gain <= 0 || gain > MOST_INLINE) return []
  if (microphone.gear.principle === 'condenser' || microphone.gear.phantom === 'needed') return []
  const isXlr = (connector: string | undefined) =>
    connector === undefined || connector === 'xlr' || connector === 'combo'
  if (!isXlr(outPlug(microphone)?.connector) || !isXlr(inPlug(next)?.connector)) return []
  const insert: Change = { do: 'insert', strip: view.strip.id, index: at + 1, gear: inlinePreampOf(view.session, gain) }
  const supply = view.own.find((use) => use.user.id === microphone.id)?.supply
  if (!supply?.can) return []
  const on = supply.on ? [] : phantomChanges(view.phantom, supply.stage.id, true)
  const caution = supply.on ? '' : ' Mute the outputs first, switch 48 V on for it, and wait.'
  return [
    { action: `Put an inline preamp of ${gain} dB behind the microphone.${caution}`, changes: settle([insert, ...on]) },
  ]
}
