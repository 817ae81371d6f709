import type { AudioInterface } from '../gear'
import type { Session } from '../session'
import { roundTripsOf } from './round-trip'

const USUAL_RATES = [44_100, 48_000, 88_200, 96_000]
const USUAL_BUFFERS = [32, 64, 128, 256, 512, 1024]

/** Rates or buffers that a table shows at most: twice what any unit offers. */
const MOST = 32

/** Rates and buffers that are offered, set or measured, each once, rising; of very many the first. */
export function timingAxes({ system }: Session, unit: AudioInterface): { rates: number[]; buffers: number[] } {
  const measured = [...roundTripsOf(system, unit), ...(system.loads ?? []), ...(system.trials ?? [])]
  const axis = (values: readonly number[]) => [...new Set(values)].slice(0, MOST).sort((a, b) => a - b)
  return {
    rates: axis([system.sampleRate, ...(unit.sampleRates ?? USUAL_RATES), ...measured.map((each) => each.sampleRate)]),
    buffers: axis([
      system.bufferFrames,
      ...(unit.bufferSizes ?? USUAL_BUFFERS),
      ...measured.map((each) => each.bufferFrames),
    ]),
  }
}
