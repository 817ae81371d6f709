import { backupJsonSchema, gearFileJsonSchema, sessionJsonSchema } from '#core/files'
import made from './answers.json'
import type { AnswerTypes } from './answer-types'

/** A JSON Schema, draft 2020-12. */
export type JsonSchema = Record<string, unknown>

const files: Record<string, () => JsonSchema> = {
  session: sessionJsonSchema,
  backup: backupJsonSchema,
  gear: gearFileJsonSchema,
}
const answers: Record<keyof AnswerTypes, { $ref: string }> = made.answers
const parts: Record<string, JsonSchema> = made.$defs
const DRAFT = 'https://json-schema.org/draft/2020-12/schema'

/** All names under which a schema is had. */
export const schemaNames: readonly string[] = [...Object.keys(files), ...Object.keys(answers)]

/** The schema of a file or of an answer, whole; `null` where there is none of that name. */
export function schemaOf(name: string): JsonSchema | null {
  const file = files[name]
  if (file) return file()
  const answer = answers[name as keyof AnswerTypes] as { $ref: string } | undefined
  if (!answer) return null
  const { $ref } = answer
  return { $schema: DRAFT, $ref, $defs: partsOf($ref) }
}

/** A part and all that it refers to. */
function partsOf(ref: string, found: Record<string, JsonSchema> = {}): Record<string, JsonSchema> {
  const name = nameOf(ref)
  const part = parts[name]
  if (!part || name in found) return found
  found[name] = part
  for (const next of refsIn(part)) partsOf(next, found)
  return found
}

const REF = /"\$ref":"([^"]*)"/g
const nameOf = (ref: string) => ref.split('/').at(-1) ?? ''
const refsIn = (part: JsonSchema) => [...JSON.stringify(part).matchAll(REF)].map(([, ref]) => ref as string)

/** Every part of the answers by its name, each referring to the others by `at`. */
export const partSchemas = (at: (id: string) => string): Record<string, JsonSchema> =>
  JSON.parse(JSON.stringify(parts).replace(REF, (_, ref: string) => `"$ref":"${at(nameOf(ref))}"`)) as typeof parts

/** The name of the part that an answer is. */
export const answerPart = (name: keyof AnswerTypes): string => nameOf(answers[name].$ref)

/** As part of another document. */
export function embedded({ $schema: _, $id: __, ...schema }: JsonSchema): JsonSchema {
  return schema
}
