import type { ResolvedStage } from '../gear/stage'
import { behindPfl, isDesk, zeroMark } from '../chain/target-window'
import type { SignalUnit } from '../gear/two-port'
import type { Reading } from '../model'
import type { PointFigure } from './figures'

/** What a meter looks at, and the level at the stage’s output for which it reads 0. */
export interface MeterScale {
  readonly figure: PointFigure
  readonly zero: number
}

const FIGURE: Record<Reading['reads'], PointFigure> = {
  peak: 'peak',
  average: 'average',
  vu: 'average',
  light: 'peak',
  pfl: 'peak',
  spl: 'average',
}

/** What 0 VU stands at on a recorder’s scale, dBFS (alignment level, EBU R 68). */
const ZERO_VU = -18

const UNIT: Record<SignalUnit, Reading['unit']> = { dBFS: 'dBFS', dBu: 'dBu', dBSPL: 'dB SPL' }

/**
 * How a reading at a stage is understood: a VU’s needle follows the average, a light and PFL the peak; PFL hears no fader, and a
 * desk’s meter counts from its zero mark.
 * @returns `null` where no meter there can have that unit
 */
export function meterScale(
  stages: readonly ResolvedStage[],
  index: number,
  unit: SignalUnit,
  reading: Pick<Reading, 'reads' | 'unit'>,
): MeterScale | null {
  const stage = stages[index]
  if (!stage) return null
  const figure = FIGURE[reading.reads]
  const behind = reading.reads === 'pfl' ? behindPfl(stage) : 0
  if (reading.unit === UNIT[unit]) return { figure, zero: behind }
  if (reading.unit === 'VU' && unit === 'dBFS') return { figure, zero: ZERO_VU }
  if ((reading.unit === 'VU' || reading.unit === 'dB') && unit === 'dBu' && isDesk(stage))
    return { figure, zero: zeroMark(stages) + behind }
  return null
}
