import { isInterface } from '../gear'
import type { ClippingChance, NoClippingChance } from '../measure/clipping-chance'
import { clippingChance } from '../measure/clipping-chance'
import type { ChannelLevels } from '../measure/levels/measure-levels'
import type { Measurement } from '../model'
import type { Session } from '../session'
import { editGear, withMeasurement } from '../edits'
import { stagesOf } from '../resolved/resolve-session'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { Take } from '../simulated/record'
import type { SimulatedInterface } from '../simulated/simulated-interface'
import { SINE_CREST, formatDecimal } from '../units'
import { measurement } from './keep'

/** What a rehearsal says of its source and of the take that it is a rehearsal for. */
export interface TakeCheck {
  /** Of the source, in the unit of its printed level. */
  level: number
  crest: number
  /**
   * From the rehearsal's greatest peak up to what the take passes with a chance of 1 %, dB, not below 0; `null` where no law of
   * peaks could be told.
   */
  surge: number | null
  /** Average over the quietest second, dB; `null` without one. */
  snr: number | null
  clipping: ClippingChance | NoClippingChance
}

/**
 * A source's level, crest factor and surge as a rehearsal shows them. The chain between is taken as it is set: what the
 * recorder reads more or less than the model is the source's. Crest is peak over average in the recording, so it holds what
 * processors on the way did to it.
 * @returns `null` for a silent channel.
 */
export function checkTake(
  channel: ChannelLevels,
  takeSeconds: number,
  printed: { level: number },
  model: { average: number },
): TakeCheck | null {
  const { rms, peak, floor } = channel
  if (rms === null || peak === null) return null
  const clipping = clippingChance(channel.overview, takeSeconds, channel.clippedRunCount)
  return {
    level: printed.level + rms - model.average,
    crest: peak - rms + SINE_CREST,
    surge: 'why' in clipping ? null : Math.max(0, clipping.seldomPassed - peak),
    snr: floor === null ? null : rms - floor,
    clipping,
  }
}

export const isChance = (clipping: TakeCheck['clipping']): clipping is ClippingChance => !('why' in clipping)

/** The sources whose level a rehearsal can tell. */
export type RehearsedKind = 'sound-source' | 'electric-source'

/** Writes level, crest and surge into a source as measured; the printed ones stay beside them. */
export function keepTake(
  session: Session,
  source: { id: string; kind: RehearsedKind },
  check: TakeCheck,
  method: string,
  on: string,
): Session {
  const values: Record<string, Measurement> = {
    level: measurement(check.level, 1, null, method, on),
    crest: measurement(check.crest, 1, null, method, on),
    ...(check.surge !== null &&
      isChance(check.clipping) && {
        surge: measurement(
          Math.min(40, check.surge),
          1,
          { value: (check.clipping.seldomBetween[1] - check.clipping.seldomBetween[0]) / 2, is: 'ci95' },
          `${method}; passed with 1 % in ${formatDecimal(check.clipping.takeSeconds / 60, 1)} min`,
          on,
        ),
      }),
  }
  return editGear(session, source.id, source.kind, (gear) =>
    Object.entries(values).reduce((each, [key, value]) => withMeasurement(each, key, value), gear),
  )
}

/** Length of the simulated interface's rehearsal, s. */
const REHEARSAL = 45

/**
 * A rehearsal of a strip on the simulated interface: a voice as loud as the model says the source is at the input, recorded with the
 * gain as it is set. `null` for a strip that does not go from an analogue source into an interface.
 */
export function rehearsalOn(simulated: SimulatedInterface, session: Session, stripId: string): Take | null {
  const strip = session.strips.find((each) => each.id === stripId)
  const stages = strip ? stagesOf(session, strip) : []
  const at = stages.findIndex((stage) => isInterface(stage))
  const input = stages[at]
  const before = evaluateSession(session).strips.find((each) => each.id === stripId)?.points[at - 1]
  if (!isInterface(input) || before?.unit !== 'dBu' || before.average === null) return null
  const gain = input.gain - (input.pad ? input.specs.pad : 0)
  return {
    simulated,
    sampleRate: session.system.sampleRate,
    channels: [{ from: 'voice', average: before.average, seconds: REHEARSAL, gain, ohms: 200 }],
  }
}
