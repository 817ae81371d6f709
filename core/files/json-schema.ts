import { log } from '../session/log'
import { session } from '../session/session'
import { z } from '../model/z'

/** The session file as JSON Schema (draft 2020-12), as one writes it: what has a default may be left out. */
export const sessionJsonSchema = () => z.toJSONSchema(z.extend(session, { log: z.optional(log) }), { io: 'input' })
