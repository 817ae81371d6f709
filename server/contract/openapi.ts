import { z } from '#core/model/z'
import { asked } from './asked'
import type { Endpoint } from './endpoints'
import { endpoints } from './endpoints'
import type { JsonSchema } from './schemas'
import { answerPart, embedded, partSchemas, schemaNames, schemaOf } from './schemas'

const refTo = (id: string) => `#/components/schemas/${id}`
const json = (schema: JsonSchema) => ({ 'application/json': { schema } })
const described = (schema: z.ZodMiniType) => embedded(z.toJSONSchema(schema, { io: 'input' }))

const PROBLEMS: Record<string, string> = {
  400: 'The body is not JSON.',
  413: 'The body is over 2 MiB.',
  422: 'The body has faults: all of them, each with its path.',
  503: 'Too much is waiting: Retry-After says how many seconds to wait.',
}

/** All endpoints, OpenAPI 3.1. */
export const openapi = () => ({
  openapi: '3.1.1',
  info: {
    title: 'Remetra',
    version: '2',
    description: 'Gain staging, headroom, noise floor and latency of a recording chain. Nothing that is sent is kept.',
    license: { name: 'MIT', identifier: 'MIT' },
  },
  servers: [{ url: '/' }],
  paths: Object.fromEntries(
    Object.entries<Endpoint>(endpoints).map(([path, endpoint]) => [
      path,
      { [endpoint.method]: operation(path, endpoint) },
    ]),
  ),
  components: { schemas: { ...partSchemas(refTo), Session: embedded(schemaOf('session') ?? {}) } },
})

function operation(path: string, { summary, takes, query, gives }: Endpoint) {
  const inPath = path.includes('{name}')
  const parameters = [
    ...(inPath ? [{ name: 'name', in: 'path', required: true, schema: { enum: schemaNames } }] : []),
    ...Object.entries(query ?? {}).map(([name, description]) => ({
      name,
      in: 'query',
      required: true,
      description,
      schema: { type: 'integer', minimum: 1, maximum: 32 },
    })),
  ]
  return {
    operationId: path.replace('/api/', '').replace('/{name}', '').replaceAll('/', '-'),
    summary,
    ...(parameters.length > 0 && { parameters }),
    ...(takes && { requestBody: { required: true, content: bodyOf(takes) } }),
    responses: {
      200: { description: 'The answer.', content: contentOf(gives) },
      ...(takes && problems(takes === 'recording' ? ['422', '503'] : Object.keys(PROBLEMS))),
      ...(inPath && { 404: problem('There is no schema of that name.') }),
    },
  }
}

function bodyOf(takes: NonNullable<Endpoint['takes']>): Record<string, { schema: JsonSchema }> {
  if (takes === 'recording') return { 'audio/wav': { schema: { type: 'string', format: 'binary' } } }
  if (takes === 'session') return json({ $ref: refTo('Session') })
  const body = described(asked[takes]) as { properties: Record<string, JsonSchema> }
  return json({ ...body, properties: { ...body.properties, session: { $ref: refTo('Session') } } })
}

function contentOf(gives: Endpoint['gives']) {
  if (gives === 'schema') return { 'application/schema+json': { schema: { type: 'object' } } }
  if (gives === 'openapi') return json({ type: 'object' })
  return json({ $ref: refTo(answerPart(gives)) })
}

const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: refTo('Problem') } } },
})
const problems = (statuses: readonly string[]) =>
  Object.fromEntries(statuses.map((status) => [status, problem(PROBLEMS[status] ?? '')]))
