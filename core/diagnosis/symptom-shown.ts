import type { SymptomId } from './symptom'
import type { DiagnosisView } from './view'

/** Quieter than that under the programme, a hiss is not complained of, dB (common practice, no source). */
export const AUDIBLE_HISS = 45
/** Later than that is complained of, ms (common practice, no source). */
export const LATE = 12

/** What the performer hears by is later than anybody minds. */
export const isHeardLate = ({ evaluated, strip }: DiagnosisView): boolean =>
  (evaluated.latency.find(({ route }) => route === strip.monitor.route)?.milliseconds ?? 0) > LATE

/** Symptoms whose figure the evaluation computes, and whether it is such as one complains of. */
const shown: Partial<Record<SymptomId, (view: DiagnosisView) => boolean>> = {
  'hiss': ({ points }) => (points.at(-1)?.snr ?? Infinity) < AUDIBLE_HISS,
  'late': isHeardLate,
  'echo': ({ monitor }) => monitor?.doubling != null,
  'distortion': ({ points }) => points.some(({ surgeHeadroom }) => surgeHeadroom !== null && surgeHeadroom < 0),
  'too-quiet': ({ chain: { place, target }, points }) =>
    place !== null && (points[place.index]?.peak ?? 0) < target.low,
}

/** Whether the session as it is set shows the symptom; one that has no figure is shown by a cause that the session has. */
export const isShown = (view: DiagnosisView, symptom: SymptomId): boolean => shown[symptom]?.(view) ?? true
