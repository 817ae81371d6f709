import type { Point } from '../chain/cascade'
import type { ResolvedStage } from '../gear/stage'
import { isDesk } from '../chain/target-window'
import type { Reading, ReadingKind } from '../model'
import type { Session } from '../session'
import { readAt } from '../uncertainty/known-readings'
import { PerturbedEvaluations } from '../uncertainty/perturbed-evaluations'

/** A meter that can be read at a stage. */
export interface MeterChoice {
  reads: ReadingKind
  unit: Reading['unit']
  /** As it is called. */
  words: string
  /** What it tells is a limit: a light that is lit, or stays dark. */
  limit?: NonNullable<Reading['limit']>
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
      ...lights('dBFS'),
    ]
  if (isDesk(stage))
    return [
      choice('pfl', 'dB', 'PFL, peak'),
      choice('peak', 'dB', 'desk’s meter, peak'),
      choice('vu', 'VU', 'VU needle'),
      ...lights('dB'),
    ]
  return [choice('average', 'dBu', 'level meter, average'), choice('peak', 'dBu', 'level meter, peak')]
}

/** A light tells whether a level was passed: lit, at least so much; dark, at most. */
const lights = (unit: Reading['unit']): MeterChoice[] => [
  { reads: 'light', unit, words: 'light flickers at' },
  { reads: 'light', unit, words: 'light is lit, set to', limit: 'at-least' },
  { reads: 'light', unit, words: 'light stays dark, set to', limit: 'at-most' },
]

/** At full scale a meter has no more to show: the level is that or more, dBFS. */
const AT_ITS_TOP = -0.1

/** The limit that a value stands for on a meter; `undefined` where the value is the level. */
export const limitOf = (meter: Pick<MeterChoice, 'unit' | 'limit'>, value: number): Reading['limit'] =>
  meter.limit ?? (meter.unit === 'dBFS' && value >= AT_ITS_TOP ? 'at-least' : undefined)

/** What a meter is expected to show at a stage by the plan, before any reading: what a reading is compared with. */
export const expectedAt = (
  session: Session,
  reading: Pick<Reading, 'strip' | 'stage' | 'reads' | 'unit'>,
): number | null => readAt(new PerturbedEvaluations(session), reading)?.now ?? null
