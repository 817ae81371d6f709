import { z } from './z'

/** An identifier: short, and safe in a path, a file name and a selector. */
export const id = z.string().check(z.regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/))
export const name = z.string().check(z.trim(), z.minLength(1), z.maxLength(200))
/** Characters that notes hold. */
export const LONGEST_NOTES = 20_000
export const notes = z.string().check(z.maxLength(LONGEST_NOTES))
export const shortText = z.string().check(z.maxLength(300))
