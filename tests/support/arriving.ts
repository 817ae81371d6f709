import type { Signal } from '#core/chain/signal'
import { dbu } from '#core/units'

/** A signal that arrives at a bus: one sound without noise, by its average, its peak and its surge. */
export const arriving = (strip: string, average: number, peak: number, surge = 0, source = strip): Signal => ({
  strip,
  unit: 'dBFS',
  average: dbu(average),
  peak: dbu(peak),
  surgePeak: dbu(peak + surge),
  bound: dbu(peak),
  shift: 0,
  noisePower: 0,
  noise: [],
  origins: [{ source, average: 0, peak: 0, surge: 0 }],
  openGain: 0,
  microphones: [],
  clipped: null,
})
