import { benchOf } from '#core/bench/bench'
import type { Bench, Outcome, Procedure, Row, Typed } from '#core/bench/procedure'
import { meterOf } from '#core/measure/question'
import type { Session } from '#core/session'
import { readSession } from '#core/files'
import { recordTake } from '#core/simulated/record'
import type { SimulatedInterface } from '#core/simulated/simulated-interface'

/** Gives the bytes of a file to a meter in pieces, as a disk would. */
export function fed<R>(
  meter: { push: (bytes: Uint8Array) => void; end: () => R },
  bytes: Uint8Array,
  piece = 65_537,
): R {
  for (let at = 0; at < bytes.length; at += piece) meter.push(bytes.subarray(at, at + piece))
  return meter.end()
}

/** Does a procedure on a simulated interface, through the WAV path, as the screen does. */
export function tried(
  procedure: Procedure,
  bench: Bench,
  simulated: SimulatedInterface,
  more: Typed = {},
): { rows: Row[]; outcome: Outcome } {
  const typed = { ...procedure.initial(bench), ...more }
  const rows: Row[] = []
  for (const trial of procedure.simulated(bench, typed, simulated)) {
    if ('reading' in trial) {
      rows.push({ name: 'reading', typed: trial.reading, found: null, sampleRate: 0, simulated })
      continue
    }
    const question = procedure.question?.(typed)
    if (!question) throw new Error('a recording that nothing is asked of')
    const answer = fed(meterOf(question), recordTake(trial.take))
    if (!answer.ok) throw new Error(answer.fault.message)
    const found = 'found' in answer ? answer.found : answer.report
    for (const part of procedure.rows(found as never)) {
      rows.push({
        name: 'take',
        typed: { ...procedure.initialEach(bench, typed, rows.length), ...trial.typed },
        found: part,
        sampleRate: trial.take.sampleRate,
        simulated,
      })
    }
  }
  return { rows, outcome: procedure.outcome(bench, typed, rows) }
}

/** The session with a result kept, read anew as the store does. */
export function kept(session: Session, outcome: Outcome): Session {
  if (!outcome.keep) throw new Error(`not to be kept: ${outcome.remarks.map((each) => each.text).join(' ')}`)
  const reading = readSession(outcome.keep.apply(session, '2026-11-25'))
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults[0]))
  return reading.session
}
export const benchFor = (session: Session, strip = session.strips[0]?.id, choice = {}): Bench =>
  benchOf(session, strip, choice) as Bench
