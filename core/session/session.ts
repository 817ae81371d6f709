import { gear } from '../gear'
import { soundcheck } from '../model/soundcheck'
import { pair, strip } from '../model/strip'
import { room, system } from '../model/system'
import { DEFAULT_CONVENTION, target } from '../model/target'
import { id, name, notes } from '../model/text'
import { z } from '../model/z'

export const SESSION_FORMAT = 'remetra.session'
export const SESSION_VERSION = 3

/** Devices and strips of one session at most. */
export const MOST_GEAR = 1000
export const MOST_STRIPS = 200

/** The session file, version 3; `migrate.ts` brings an older one to it. */
export const session = z.strictObject({
  format: z.literal(SESSION_FORMAT),
  version: z.literal(SESSION_VERSION),
  id,
  name,
  notes: z._default(notes, ''),
  system: z.prefault(system, {}),
  room: z.prefault(room, {}),
  target: z._default(target, DEFAULT_CONVENTION),
  gear: z.array(gear).check(z.maxLength(MOST_GEAR)),
  strips: z.array(strip).check(z.minLength(1), z.maxLength(MOST_STRIPS)),
  pairs: z.optional(z.array(pair).check(z.maxLength(100))),
  soundcheck: z.optional(soundcheck),
})
export type Session = z.infer<typeof session>
