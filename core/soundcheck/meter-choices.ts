import type { Point } from '../chain/cascade'
import type { ResolvedStage } from '../chain/resolve'
import { isDesk } from '../chain/target-window'
import type { Reading, ReadingKind } from '../session'
import { meterScale } from '../uncertainty/meters'

/** A meter that can be read at a stage. */
export interface MeterChoice {
  reads: ReadingKind
  unit: Reading['unit']
  /** As it is called. */
  words: string
}

/** The meters that can be read at a stage, the usual one first (what each is worth: common practice). */
export function meterChoices(stage: ResolvedStage, point: Point): MeterChoice[] {
  const choice = (reads: ReadingKind, unit: Reading['unit'], words: string): MeterChoice => ({ reads, unit, words })
  if (point.unit === 'dBSPL') return [choice('spl', 'dB SPL', 'sound level meter')]
  if (point.unit === 'dBFS')
    return [
      choice('peak', 'dBFS', 'sample peak'),
      choice('average', 'dBFS', 'average (RMS)'),
      choice('vu', 'VU', 'VU needle'),
      choice('light', 'dBFS', 'light, flickers at'),
    ]
  if (isDesk(stage))
    return [
      choice('pfl', 'dB', 'PFL, peak'),
      choice('peak', 'dB', 'desk’s meter, peak'),
      choice('vu', 'VU', 'VU needle'),
      choice('light', 'dB', 'light, flickers at'),
    ]
  return [choice('average', 'dBu', 'level meter, average'), choice('peak', 'dBu', 'level meter, peak')]
}

/** What a meter is expected to show at a stage, as things are set. */
export function expectedAt(
  stages: readonly ResolvedStage[],
  points: readonly Point[],
  stage: string,
  reading: Pick<Reading, 'reads' | 'unit'>,
): number | null {
  const point = points.find((each) => each.stage === stage)
  const index = stages.findIndex(({ id }) => id === stage)
  const scale = point && meterScale(stages, index, point.unit, reading)
  if (!point || !scale) return null
  return (scale.figure === 'average' ? point.average : point.peak) - scale.zero
}
