import { gear } from './gear'
import { soundcheck } from './soundcheck'
import { pair, strip } from './strip'
import { room, system } from './system'
import { DEFAULT_CONVENTION, target } from './target'
import { id, name, notes } from './text'
import { z } from './z'

export const SESSION_FORMAT = 'remetra.session'
export const SESSION_VERSION = 3

/** The session file, version 3; `migrate.ts` brings an older one to it. */
export const session = z.strictObject({
  format: z.literal(SESSION_FORMAT),
  version: z.literal(SESSION_VERSION),
  id,
  name,
  notes: notes.default(''),
  system: system.prefault({}),
  room: room.prefault({}),
  target: target.default(DEFAULT_CONVENTION),
  gear: z.array(gear).max(1000),
  strips: z.array(strip).min(1).max(200),
  pairs: z.array(pair).max(100).optional(),
  soundcheck: soundcheck.optional(),
})
export type Session = z.infer<typeof session>
