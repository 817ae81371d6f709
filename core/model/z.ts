// The small form: it compiles nothing at run time, which the content security policy would refuse.
import * as z from 'zod/mini'

/** The schema with a sentence about it, which the JSON Schema carries. */
export function described<S extends z.ZodMiniType>(description: string, schema: S): S {
  const copy = schema.clone(schema.def as S['_zod']['def'], { parent: true })
  z.globalRegistry.add(copy, { description })
  return copy as S
}

export { z }
