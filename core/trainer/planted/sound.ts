import type { Effects } from '../../render/effects'
import type { Hearing } from '../../render/hearing'
import type { CauseId } from '../../diagnosis/causes'
import type { SymptomId } from '../../diagnosis/symptom'
import { trebleCut } from '../../diagnosis/treble'
import type { DiagnosisView } from '../../diagnosis/view'

/**
 * How hidden faults sound: what no setting tells, a hand and an ear find. Figures drawn from what is usual (common practice, no
 * source).
 */
const HIDDEN: Partial<Record<CauseId, Effects & { silent?: boolean }>> = {
  'earth-loop': { hum: { mains: 50, level: -48, lines: 'odd' } },
  'di-earth': { hum: { mains: 50, level: -46, lines: 'odd' } },
  'hum-field': { hum: { mains: 50, level: -46, lines: 'alone' } },
  'supply-ripple': { hum: { mains: 50, level: -50, lines: 'even' } },
  'plug-in-load': { dropouts: { kind: 'gap', perSecond: 1.5, regular: false, frames: 256 } },
  'other-programs': { dropouts: { kind: 'gap', perSecond: 0.8, regular: false, frames: 512 } },
  'usb-path': { dropouts: { kind: 'gap', perSecond: 0.7, regular: false, frames: 96 } },
  'clocks-unlocked': { dropouts: { kind: 'jump', perSecond: 2, regular: true, frames: 40 } },
  'mains-switching': { dropouts: { kind: 'jump', perSecond: 0.3, regular: false, frames: 60 } },
  'offset': { offset: -24 },
  'desk-return': { twice: { delayMs: 21, difference: -5 } },
  'stream-monitor': { twice: { delayMs: 1900, difference: -9 } },
  'one-input-stereo-track': { side: 'left' },
  'balance-control': { side: 'right' },
  'plug-half-in': { side: 'left' },
  'muted': { silent: true },
  'track-not-armed': { silent: true },
  'wrong-input': { silent: true },
  'output-elsewhere': { silent: true },
  'device-held': { silent: true },
  'loudspeakers-down': { silent: true },
  'driver-missing': { silent: true },
  'firmware-old': { silent: true },
  'charge-cable': { silent: true },
  'storage-mode': { silent: true },
  'file-unconverted': { ratio: 48_000 / 44_100 },
  'automatic-gain': { drift: { depth: 9, perSecond: 0.6, steps: false } },
  'call-lowering': { drift: { depth: 14, perSecond: 0.2, steps: true } },
  'performer-moves': { drift: { depth: 6, perSecond: 0.25, steps: false } },
  'two-microphones': { twice: { delayMs: 2.3, difference: -3 } },
  'polarity-flipped': { twice: { delayMs: 0.15, difference: -2, inverted: true } },
  'microphone-in-room': { howl: { frequency: 1180, rise: 6 } },
  'pattern-turned': { howl: { frequency: 2350, rise: 6 } },
}

/** The machine loses a buffer so often where it does not keep up (for show). */
const DROPS_PER_SECOND = 2

/** What the session itself brings about: dropouts, both paths, one side, another rate, lost treble, feedback. */
export function effectsOf(view: DiagnosisView): Effects {
  const { all, monitor, stages, strip } = view
  const { cell, session } = all
  const other = session.system.devices?.find(({ sampleRate }) => sampleRate !== session.system.sampleRate)
  const cut = trebleCut(stages)
  const margins = view.busses.flatMap(({ evaluated }) => evaluated.feedback?.margin ?? [])
  const { side } = strip.monitor
  return {
    ...(cell?.sustainable === false && {
      dropouts: {
        kind: 'gap' as const,
        perSecond: DROPS_PER_SECOND,
        regular: false,
        frames: session.system.bufferFrames,
      },
    }),
    ...(monitor?.doubling && { twice: { delayMs: monitor.doubling.delayMs, difference: monitor.doubling.difference } }),
    ...(other && { ratio: session.system.sampleRate / other.sampleRate }),
    ...(cut?.corner && cut.corner < 8000 && { dull: cut.corner }),
    ...(margins.some((margin) => margin < 0) && { howl: { frequency: 910, rise: 8 } }),
    ...(side && { side }),
  }
}

/** The strip as it sounds: what the session brings about, and a fault that only hands find. Late sound is heard beside one’s own. */
export function hearingOf(
  view: DiagnosisView,
  hidden: CauseId | null,
  symptom: SymptomId | null,
  seed: number,
): Hearing {
  const { silent, ...own } = (hidden && HIDDEN[hidden]) ?? {}
  const effects = { ...effectsOf(view), ...own }
  const route = view.evaluated.latency.find(({ route: name }) => name === view.strip.monitor.route)
  if (symptom === 'late' && route && !effects.twice) effects.twice = { delayMs: route.milliseconds, difference: 0 }
  const off = silent === true || view.findings.some(({ code }) => code === 'phantom-missing')
  // Noise is what is complained of: then its pause is brought up so far that it can be heard beside a safe programme.
  const quiet = symptom === 'hiss' || symptom === 'hum' || symptom === 'too-quiet'
  return {
    from: { session: view.session, strip: view.strip.id, ...(off && { silent: true }) },
    seconds: 5,
    pauseSeconds: 2.5,
    ...(quiet && { pauseRaised: 30 }),
    effects,
    seed,
  }
}
