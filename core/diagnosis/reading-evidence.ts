import { formatDecimal } from '../units'
import type { Cause, Evidence } from './cause'
import type { DiagnosisView } from './view'

/** A reading beside what was expected by that much says something, dB (common practice, no source). */
const READ_OFF = 3
/** How much it says. */
const WEIGHT = 3

/** A reading of the soundcheck that lies beside what was expected, for causes that would make it read lower or higher. */
export function readingEvidence(view: DiagnosisView, { readings }: Pick<Cause, 'readings'>): Evidence[] {
  const [worst] = view.readings
  if (!readings || !worst || Math.abs(worst.off) < READ_OFF) return []
  const way = worst.off < 0 ? 'lower' : 'higher'
  return [
    {
      says: `A reading at “${view.name(worst.stage)}” was ${formatDecimal(Math.abs(worst.off), 1)} dB ${way} than expected.`,
      weight: way === readings ? WEIGHT : 1 / WEIGHT,
    },
  ]
}
