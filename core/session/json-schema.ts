import { log } from './log'
import { session } from './session'
import { z } from './z'

/** The session file as JSON Schema (draft 2020-12), as one writes it: what has a default may be left out. */
export const sessionJsonSchema = () => z.toJSONSchema(z.extend(session, { log: z.optional(log) }), { io: 'input' })
