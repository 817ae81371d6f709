import type { LoadModel } from '../latency/cpu-load'
import { loadAt, loadWords } from '../latency/cpu-load'
import type { Session } from '../session'
import type { System } from '../model'
import { formatDecimal } from '../units'
import { hostUnit, timeSession } from '../timing/time-session'
import { largerBuffer } from '../timing/larger-buffer'
import { timingAxes } from '../latency/axes'

/** What helps against crackles, by what is behind them (common practice). */
export const DROPOUT_STEPS = {
  plugIns: 'Take plug-ins off, or freeze tracks.',
  programs: 'Close what else runs: browsers, synchronising, virus scans, wireless networks.',
  driver: 'Use the maker’s exclusive low-latency driver instead of the shared or the class driver.',
  port: 'Another USB port, directly at the computer; no hub without a supply of its own.',
  cable: 'The cable it came with: 5 m at most for USB 2.0.',
} as const

/** The same for a session, the first that helps most first; nothing without an interface. */
export function dropoutRemediesOf(session: Session): string[] {
  const unit = hostUnit(session)
  if (!unit) return []
  const { matrix, loadModel } = timeSession(session)
  const larger = largerBuffer(session.system, timingAxes(session, unit).buffers, matrix)
  return dropoutRemedies(session.system, larger, loadModel ?? null)
}

/** What to do against crackles and dropouts, the first that helps most first (common practice). */
function dropoutRemedies(system: System, larger: number | null, load: LoadModel | null): string[] {
  const { sampleRate, bufferFrames, driver } = system
  const percent = (frames: number, rate: number = sampleRate) => (load ? loadWords(loadAt(load, rate, frames)) : null)
  const raised =
    larger === null
      ? 'The buffer is at its largest.'
      : load
        ? `Raise the buffer: ${larger} would bring the load from ${percent(bufferFrames)} to ${percent(larger)}.`
        : `Raise the buffer to ${larger} frames.`
  return [
    raised,
    load?.perFrameMs
      ? `Take plug-ins off or freeze tracks: they are what every frame costs, ${formatDecimal((load.perFrameMs * sampleRate) / 10, 0)} % of the machine at any buffer.`
      : DROPOUT_STEPS.plugIns,
    DROPOUT_STEPS.programs,
    driver === 'exclusive'
      ? 'The driver is the exclusive one already; look for a newer version of it.'
      : DROPOUT_STEPS.driver,
    DROPOUT_STEPS.port,
    DROPOUT_STEPS.cable,
    ...(sampleRate > 48_000
      ? [
          `A lower sample rate: ${load ? `at 48 kHz the load would be ${percent(bufferFrames, 48_000)}` : '48 kHz halves the work'}.`,
        ]
      : []),
  ]
}
