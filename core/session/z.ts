import * as z from 'zod/mini'

// Zod would compile its checks with `new Function`, which the content security policy rightly refuses.
z.config({ jitless: true })

/** The schema with a sentence about it, which the JSON Schema carries. */
export function described<S extends z.ZodMiniType>(description: string, schema: S): S {
  const copy = schema.clone(schema.def as S['_zod']['def'], { parent: true })
  z.globalRegistry.add(copy, { description })
  return copy as S
}

export { z }
