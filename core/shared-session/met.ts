import { mergeAll } from '../edits'
import { gearDifferencesOf, settingDifferences } from '../log/compare'
import { z } from '../model/z'
import type { Session } from '../session'
import { asRead } from './revisions'

/** Something that two devices changed at once: what stands now, and what the other one had set. */
export const met = z.strictObject({
  of: z.string().check(z.maxLength(300)),
  what: z.string().check(z.maxLength(600)),
  kept: z.string().check(z.maxLength(2000)),
  other: z.string().check(z.maxLength(2000)),
})
export type Met = z.infer<typeof met>

/** Things that are listed at most; beyond them only their number is told. */
export const MOST_MET = 50

export type Joined =
  | { ok: true; session: Session; met: Met[] }
  /** Each change is right by itself, and both together are no session. */
  | { ok: false; why: string }

/**
 * Two changes of a session, made apart, as one: what only one of them changed is taken, and where both did, the value of `theirs`
 * stands and the other is listed.
 */
export function join(base: Session, mine: Session, theirs: Session): Joined {
  const all = mergeAll(base, mine, theirs)
  const read = asRead(theirs, all.merged)
  if (!read.ok) return read
  return {
    ok: true,
    session: read.session,
    met: all.met.length === 0 ? [] : listMet(base, mine, theirs, read.session, all.met),
  }
}

/** The same with `mine` where both changed something; `null` where that is no session. */
export function joinMine(base: Session, mine: Session, theirs: Session): Session | null {
  const read = asRead(theirs, mergeAll(base, mine, theirs, 'mine').merged)
  return read.ok ? read.session : null
}

function listMet(base: Session, mine: Session, theirs: Session, kept: Session, paths: readonly string[]): Met[] {
  const other = joinMine(base, mine, theirs)
  const told = other
    ? [...settingDifferences(kept, other), ...gearDifferencesOf(kept, other)].map(({ of, what, from, to }): Met => ({
        of,
        what,
        kept: from,
        other: to,
      }))
    : []
  const rest = told.length > 0 ? paths.filter((path) => !/^(strips|gear|system|room|target)\b/.test(path)) : paths
  return [...told, ...rest.map(metAt)].slice(0, MOST_MET)
}

const NAMES: Record<string, string> = {
  name: 'Name',
  notes: 'Notes',
  soundcheck: 'Soundcheck: a reading or a tick',
  strips: 'Strips',
  gear: 'Devices',
  pairs: 'Stereo pairs',
}

/** What has no words of its own among the settings. */
const metAt = (path: string): Met => ({
  of: 'Session',
  what: NAMES[path.split('.')[0] ?? ''] ?? 'Another part',
  kept: 'the session owner’s',
  other: 'the other device’s',
})
