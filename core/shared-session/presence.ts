import { id } from '../model/text'
import { z } from '../model/z'

/** What a device shows: a place, in it a strip and one of its stages, and the step of the run sheet in hand. */
export const presence = z.strictObject({
  place: z.string().check(z.maxLength(40)),
  strip: z.nullable(id),
  stage: z.nullable(id),
  /** Of the soundcheck: step by step, or all inputs. */
  page: z.enum(['steps', 'inputs']),
  step: z.nullable(z.string().check(z.maxLength(300))),
  /** Whether it and the others stay on one step. */
  follows: z.boolean(),
})
export type Presence = z.infer<typeof presence>

/** What a guest may do: change the session, or look at it. */
export const roles = ['hands', 'eyes'] as const
export type Role = (typeof roles)[number]

/** A device in the room, as all of them are told of it. */
export const member = z.strictObject({
  number: z.int().check(z.minimum(1), z.maximum(255)),
  name: z.string().check(z.minLength(1), z.maxLength(60)),
  role: z.enum(['leader', ...roles]),
  at: z.nullable(presence),
})
export type Member = z.infer<typeof member>
