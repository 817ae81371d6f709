import { median } from '../numeric/statistics'
import { meanSquareToDbfs } from './block-levels'
import type { PowerSpectrum } from './levels/spectrum'

/** A mains frequency and its multiples that stand out of the noise. */
export interface Hum {
  /** 50 or 60 Hz, as the lines say. */
  mains: 50 | 60
  /** As measured, Hz. */
  frequency: number
  lines: HumLine[]
  /** All lines together, dBFS. */
  level: number
}
export interface HumLine {
  order: number
  frequency: number
  /** dBFS. */
  level: number
  /** Over the noise around it within the same width, dB. */
  over: number
}

/** The mains keeps its frequency this well, Hz, apart from rare events. */
const SWAY = 0.5
/** Multiples looked at: up to 1 kHz at 50 Hz. */
const MOST_LINES = 20
/** Lines that stand out less are taken for noise, dB. */
const STANDS_OUT = 8
/** A Hann window's line is this many steps wide to either side. */
const HALF_WIDTH = 2

/** Mains hum in a spectrum that is fine enough (well under 1 Hz); `null` where no line stands out. */
export function findHum(spectrum: PowerSpectrum): Hum | null {
  const families = ([50, 60] as const).map((mains) => family(spectrum, mains))
  return families.reduce<Hum | null>((best, each) => (each && (!best || each.level > best.level) ? each : best), null)
}

function family(spectrum: PowerSpectrum, mains: 50 | 60): Hum | null {
  let best: { frequency: number; score: number } | null = null
  for (let frequency = mains - SWAY; frequency <= mains + SWAY; frequency += spectrum.step / 8) {
    // The higher multiples tell the frequency best, so all have a say.
    let score = 0
    for (let order = 1; order <= MOST_LINES; order++) score += lineAt(spectrum, order * frequency).power
    if (!best || score > best.score) best = { frequency, score }
  }
  if (!best) return null
  const frequency = refined(spectrum, best.frequency)
  const lines: HumLine[] = []
  let total = 0
  for (let order = 1; order <= MOST_LINES; order++) {
    const { power, noise } = lineAt(spectrum, order * frequency)
    const level = meanSquareToDbfs(power - noise)
    const over = noise > 0 ? 10 * Math.log10(power / noise) : Infinity
    if (level === null || over < STANDS_OUT) continue
    lines.push({ order, frequency: order * frequency, level, over: Math.min(over, 200) })
    total += power - noise
  }
  const level = meanSquareToDbfs(total)
  return lines.length > 0 && level !== null ? { mains, frequency, lines, level } : null
}

/** Where the strongest multiple truly stands, by the centre of its power; the search before sees lines as wide as they are. */
function refined(spectrum: PowerSpectrum, frequency: number): number {
  const orders = Array.from({ length: MOST_LINES }, (_, i) => i + 1)
  const strongest = orders.reduce(
    (most, order) =>
      lineAt(spectrum, order * frequency).power > lineAt(spectrum, most * frequency).power ? order : most,
    1,
  )
  const middle = Math.round((strongest * frequency) / spectrum.step)
  let [power, moment] = [0, 0]
  for (let k = middle - HALF_WIDTH; k <= middle + HALF_WIDTH; k++) {
    power += spectrum.powers[k] ?? 0
    moment += k * (spectrum.powers[k] ?? 0)
  }
  return power > 0 ? ((moment / power) * spectrum.step) / strongest : frequency
}

/** The power of a line and that of the noise around it within the same width. */
function lineAt({ powers, step }: PowerSpectrum, frequency: number): { power: number; noise: number } {
  const middle = Math.round(frequency / step)
  let power = 0
  for (let k = middle - HALF_WIDTH; k <= middle + HALF_WIDTH; k++) power += powers[k] ?? 0
  const around: number[] = []
  for (let off = HALF_WIDTH + 3; off <= HALF_WIDTH + 14; off++)
    around.push(powers[middle - off] ?? 0, powers[middle + off] ?? 0)
  // A spectrum's lines scatter; their mean is 1/ln 2 of the median where few windows were averaged.
  return { power, noise: (2 * HALF_WIDTH + 1) * median(around) }
}
