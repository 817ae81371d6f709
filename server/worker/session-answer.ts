import type { Fault } from '#core/files'

/** The answer to a session file, as the text of its JSON, or what is wrong with the file. */
export type SessionAnswer = { ok: true; json: string } | { ok: false; faults: Fault[] }
