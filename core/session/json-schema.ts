import { z } from './z'
import { session } from './session'

/** The session file as JSON Schema (draft 2020-12), as one writes it: what has a default may be left out. */
export const sessionJsonSchema = () => z.toJSONSchema(session, { io: 'input' })
