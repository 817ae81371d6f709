import type { Stretch } from './steady'

/** Silence of this length ends a burst, s. */
const GAP = 0.05
/** What lies this far under the peak is silence, dB. */
const UNDER = 40

/** Stretches of a signal with silence between them: pulses, or a sequence played several times. */
export function burstsOf(samples: Float64Array, sampleRate: number): Stretch[] {
  let peak = 0
  for (const x of samples) if (Math.abs(x) > peak) peak = Math.abs(x)
  if (peak === 0) return []
  const threshold = peak * 10 ** (-UNDER / 20)
  const gap = Math.round(GAP * sampleRate)
  const found: Stretch[] = []
  let last = -Infinity
  for (let i = 0; i < samples.length; i++) {
    if (Math.abs(samples[i] as number) < threshold) continue
    const open = found.at(-1)
    if (open && i - last <= gap) open.to = i + 1
    else found.push({ from: i, to: i + 1 })
    last = i
  }
  return found
}
