import type { ResolvedSource } from '../gear/sound-source/stage'
import type { Change } from '../edits'
import type { Fix } from './finding'
import { formatShort, metres } from '../units'
import { nearGain } from '../gear/sound-source/chain'
import { inPlug, outPlug } from '../chain/joint'
import { phantomOn } from '../chain/phantom'
import { inlinePreampOf } from './remedies'
import { leastStep } from './trial'
import type { StripView } from './view'
import { microphones, source } from './view'

/** Closer than this a microphone is at the mouth (common practice, no source), m. */
const CLOSEST = 0.05

/** Going closer, where the inverse distance gives what is missing. */
export function closerFix(view: StripView, short: number): Fix[] {
  const from = source(view)
  if (!from || short <= 0) return []
  const distance = nearEnough(from, short)
  if (distance === null) return []
  return [
    {
      action: `Go closer: ${formatShort(distance)} m instead of ${formatShort(from.distance)} m.`,
      changes: [{ strip: view.strip.id, stage: from.id, setting: 'distance', to: metres(distance) }],
    },
  ]
}

/** The distance at which a source is so much louder, rounded down to a centimetre; `null` where that would be at the mouth. */
function nearEnough({ specs, distance, gear }: ResolvedSource, by: number): number | null {
  const now = nearGain(specs.distance, distance, gear.size)
  const last = Math.floor(100 * distance)
  const steps = leastStep(
    last - 100 * CLOSEST,
    (step) => nearGain(specs.distance, (last - step) / 100, gear.size) - now >= by,
    1,
  )
  return steps === null || last - 100 * CLOSEST < 0 ? null : (last - steps) / 100
}

/** No usual inline preamp gives more (common practice, no source), dB. */
const MOST_INLINE = 28

/**
 * An inline preamp behind a passive microphone: at an XLR that can give 48 V. A condenser would lose its power to it,
 * and inside a USB microphone or at a jack there is no place for one.
 */
export function inlinePreampFix(view: StripView, short: number, settle: (changes: Change[]) => Change[]): Fix[] {
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
  // The inline preamp keeps the 48 V from the microphone; whatever else hangs on the switch gets it.
  const on = supply.on ? [] : phantomOn(view.phantom, supply, microphone.id)
  if (on === null) return []
  const caution = supply.on ? '' : ' Mute the outputs first, switch 48 V on for it, and wait.'
  return [
    { action: `Put an inline preamp of ${gain} dB behind the microphone.${caution}`, changes: settle([insert, ...on]) },
  ]
}
