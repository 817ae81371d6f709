import { described, z } from './z'

export const assumed = described(
  'Names of specifications that are usual figures, neither printed nor measured.',
  z.optional(z.array(z.string().check(z.minLength(1), z.maxLength(40))).check(z.maxLength(60))),
)

/** Half of the width that a value may lie in: in the value’s own unit, or in the one that stands beside it. */
const halfWidth = z.number().check(z.minimum(0), z.maximum(10_000))
const statedTolerance = z.union([
  halfWidth,
  z.strictObject({ value: halfWidth, unit: z.string().check(z.minLength(1), z.maxLength(12)) }),
])

export const tolerance = described(
  'The maker’s tolerances: half of the width by the name of the specification, in its unit, or with a unit of its own (dB, %).',
  z.optional(z.record(z.string().check(z.minLength(1), z.maxLength(40)), statedTolerance)),
)
export type StatedTolerance = z.infer<typeof statedTolerance>
