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
  /** Counts moves by hand over all devices: who follows goes where the count is highest, and raises it not. */
  moved: z.int().check(z.minimum(0)),
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

/**
 * The device to be followed: the one that was moved by hand last; of two at once the one with the lower number.
 * @param you one’s own number, and how often one had moved
 */
export function leading(members: readonly Member[], you: { number: number; moved: number }): Presence | null {
  const rank = (number: number, moved: number) => moved - number / 1000
  const others = members.flatMap(({ number, at }) => (at && number !== you.number ? [{ number, at }] : []))
  const first = others.sort((a, b) => rank(b.number, b.at.moved) - rank(a.number, a.at.moved))[0]
  return first && rank(first.number, first.at.moved) > rank(you.number, you.moved) ? first.at : null
}
