/**
 * How many sessions this browser keeps, noted apart from the database: where that one vanished, the note tells that it is not a
 * first visit. Where the note cannot be written or read (private windows, blocked storage), there is none.
 */
const KEY = 'remetra-kept-sessions'

export function noteKeptCount(count: number): void {
  try {
    localStorage.setItem(KEY, String(count))
  } catch {
    // Without the note an empty database is taken for a first visit: no worse than before there was one.
    return
  }
}

export function keptCountNoted(): number {
  try {
    const count = Number(localStorage.getItem(KEY))
    return Number.isInteger(count) && count > 0 ? count : 0
  } catch {
    return 0
  }
}
