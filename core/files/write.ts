import type { Session } from '../session/session'
import { session as schema } from '../session/session'

/**
 * The text of a session file: two spaces of indentation, keys in the order of the schema, a line end at the end.
 * Reading it back and writing it again gives the same bytes.
 */
export const writeSession = (session: Session): string => inJson(schema.parse(session))

export const inJson = (file: object): string => `${JSON.stringify(file, null, 2)}\n`
