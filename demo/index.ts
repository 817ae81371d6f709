import type { Session } from '#core/session'
import { readSession } from '#core/files'
import file from './net-loft.session.json'

/** The demo: the audio guide of a small tide-mill museum. All people, places and gear are invented. */
export function demoSession(): Session {
  const reading = readSession(file)
  if (!reading.ok)
    throw new Error(
      `The demo file is faulty: ${reading.faults.map(({ path, message }) => `${path}: ${message}`).join('; ')}`,
    )
  return reading.session
}
