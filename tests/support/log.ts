import type { Mark, Session, Take } from '#core/session'

/** A mark of a session, and a take, with what each of them must have. */
export const markOf = (session: Session, id: string, more: Partial<Mark> = {}): Mark => ({
  id,
  name: `Mark ${id}`,
  at: '2026-11-20T19:00:00+01:00',
  session,
  ...more,
})
export const takeOf = (id: string, number: number, more: Partial<Take> = {}): Take => ({
  id,
  number,
  name: '',
  strips: ['narrator'],
  at: '2026-11-20T19:30:00+01:00',
  ...more,
})
