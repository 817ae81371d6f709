import { isNewer } from '#core/log/read-entry'
import { SESSION_VERSION } from '#core/session'

/** Something in the database that this program does not use: it is left as found and can be exported as it is. */
export interface Aside {
  name: string
  why: 'newer' | 'damaged' | 'replaced'
  raw: unknown
}

/** The version that rows are written with: the one of the session file. */
export const ROW_VERSION = SESSION_VERSION

export { isNewer }

export const aside = (name: string, raw: unknown): Aside => ({ name, why: isNewer(raw) ? 'newer' : 'damaged', raw })
