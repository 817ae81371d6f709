import type { Session } from '#core/session'
import { readSession } from '#core/files'

/**
 * What was committed in the moment in which the page went away: the database answers later than that, the browser’s local storage at
 * once. It is taken in when the session is opened again.
 */
export interface LastWords {
  key: string
  /** How often the session’s row had been written by then, at most. */
  writes: number
  label: string
  session: Session
}

const nameOf = (key: string) => `remetra-last-words-${key}`

/** Leaves a note; where local storage takes none, the browser asks before the page goes, as for everything unkept. */
export function leaveLastWords(words: LastWords): void {
  try {
    localStorage.setItem(nameOf(words.key), JSON.stringify(words))
  } catch (error) {
    if (!(error instanceof DOMException)) throw error
  }
}

export function dropLastWords(key: string): void {
  try {
    localStorage.removeItem(nameOf(key))
  } catch (error) {
    if (!(error instanceof DOMException)) throw error
  }
}

/** The note of a session; `null` where there is none that can be read. */
export function lastWordsOf(key: string): LastWords | null {
  try {
    const found = JSON.parse(localStorage.getItem(nameOf(key)) ?? 'null') as Partial<LastWords> | null
    const reading = readSession(found?.session)
    if (!found || !reading.ok) return null
    return { key, writes: Number(found.writes) || 0, label: String(found.label ?? 'Typed'), session: reading.session }
  } catch (error) {
    if (error instanceof DOMException || error instanceof SyntaxError) return null
    throw error
  }
}
