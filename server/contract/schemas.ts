import { backupJsonSchema, gearFileJsonSchema, sessionJsonSchema } from '#core/files'
import { z } from '#core/model/z'
import { answers } from './answers'
import { named } from './parts'

/** A JSON Schema, draft 2020-12. */
export type JsonSchema = Record<string, unknown>

const files: Record<string, () => JsonSchema> = {
  session: sessionJsonSchema,
  backup: backupJsonSchema,
  gear: gearFileJsonSchema,
}

/** All names under which a schema is had. */
export const schemaNames: readonly string[] = [...Object.keys(files), ...Object.keys(answers)]

/** The schema of a file or of an answer, whole; `null` where there is none of that name. */
export function schemaOf(name: string): JsonSchema | null {
  const file = files[name]
  if (file) return file()
  return name in answers ? z.toJSONSchema(answers[name as keyof typeof answers]) : null
}

/** Every named part of the answers by its name, each referring to the others by `at`. */
export function partSchemas(at: (id: string) => string): Record<string, JsonSchema> {
  const { schemas } = z.toJSONSchema(named, { uri: at })
  return Object.fromEntries(Object.entries(schemas).map(([id, schema]) => [id, embedded(schema)]))
}

/** As part of another document. */
export function embedded({ $schema: _, $id: __, ...schema }: JsonSchema): JsonSchema {
  return schema
}
