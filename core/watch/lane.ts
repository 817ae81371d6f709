import type { Point } from '../chain/cascade'
import { lastControl, stripControls } from '../chain/gain-control'
import { gainInWords, stageName } from '../chain/setting-words'
import { isConverter, meterReading, readingOf, readingPlace } from '../chain/target-window'
import type { Evaluation } from '../evaluation/evaluate-session'
import type { ResolvedStage } from '../gear/stage'
import type { TargetWindow } from '../model'
import { channelsOf } from '../model'
import { stagesOf } from '../resolved/resolve-session'
import type { Session } from '../session'
import { recorderChannel } from '../soundcheck/plug-steps'
import { windowOf } from '../uncertainty/window'

/** One input of the recorder as it is planned: what should come in on it. Levels in dBFS at the converter. */
export interface Lane {
  strip: string
  name: string
  /** The stage that hears it, and its name. */
  stage: string
  socket: string
  /** Of the device, from 0: the recorder’s channel as the run sheet counts it; a box with one converter is its first. */
  channel: number
  /** What the target wants there; `null` where the strip has none. */
  window: Pick<TargetWindow, 'low' | 'high' | 'aim' | 'reads'> | null
  expected: { peak: number; average: number }
  /** How much louder than rehearsed the take gets, dB. */
  surge: number
  /** Planned noise, dBFS(A). */
  floor: number | null
  /** The gain that is turned last, as a hand sets it. */
  gain: string | null
  /** How far it can still be turned up and down, dB. */
  gainLeft: { up: number; down: number }
}

/** All strips that come in at a converter, in the order of the recorder’s inputs. Two strips on one input are two lanes. */
export function lanesOf(session: Session, evaluation: Evaluation): Lane[] {
  return channelsOf(session)
    .flatMap((strip) => {
      const stages = stagesOf(session, strip)
      const index = stages.findLastIndex(isConverter)
      const stage = stages[index]
      const point = evaluation.strips.find(({ id }) => id === strip.id)?.points[index]
      if (!stage || point?.unit !== 'dBFS') return []
      const control = lastControl(stripControls(stages.slice(0, index + 1)))
      return [
        {
          strip: strip.id,
          name: strip.name,
          stage: stage.id,
          socket: stageName(stage),
          channel: (recorderChannel({ stages }) ?? 1) - 1,
          window: windowAt(windowOf(session, strip, stages), stages, evaluation, strip.id, point),
          expected: { peak: point.peak, average: point.average },
          surge: point.surgePeak - point.peak,
          floor: point.noise,
          gain: control && gainInWords(control),
          gainLeft: {
            up: control ? control.range.gainMax - control.value : 0,
            down: control ? control.value - control.range.gainMin : 0,
          },
        },
      ]
    })
    .sort((a, b) => a.channel - b.channel)
}

/** The window as the converter’s meter shows it, also where the target is read at the desk. */
function windowAt(
  window: TargetWindow,
  stages: readonly ResolvedStage[],
  evaluation: Evaluation,
  strip: string,
  converter: Point,
): Lane['window'] {
  const place = readingPlace(stages, window)
  const read = place && evaluation.strips.find(({ id }) => id === strip)?.points[place.index]
  if (!place || !read) return null
  const further = readingOf(converter, window.reads) - meterReading(read, place, window)
  const { low, high, aim, reads } = window
  return { low: low + further, high: high + further, aim: aim + further, reads }
}
