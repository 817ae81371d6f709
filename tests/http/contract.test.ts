import { Validator } from '@seriousme/openapi-schema-validator'
import Ajv from 'ajv/dist/2020'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { templates, templateSession } from '#demo/templates'
import { symptomIds } from '#core/diagnosis/symptom'
import { maximumLengthSequence, sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { serve } from '../../scripts/steps.mjs'
import { endpoints } from '../../server/contract/endpoints'
import { schemaNames } from '../../server/contract/schemas'
import { ask } from '../support/ask'
import { twoMixes } from '../support/desk'
import { example1, example2 } from '../support/sessions'

type Json = Record<string, unknown>
let server: Awaited<ReturnType<typeof serve>>
let description: Json & { paths: Record<string, Json>; components: { schemas: Record<string, Json> } }
beforeAll(async () => {
  server = await serve()
  description = (await (await get('openapi')).json()) as typeof description
})
afterAll(() => server.stop())

const get = (path: string) => fetch(`${server.address}/api/${path}`)
const post = async (path: string, body: string | Uint8Array) => {
  const response = await ask(`${server.address}/api/${path}`, { method: 'POST', body: body as never })
  return { status: response.status, answer: (await response.json()) as Json }
}

/** An own validator of JSON Schema 2020-12; formats are left to whoever reads the file. */
const ajv = new Ajv({ strict: true, allowUnionTypes: true, validateFormats: false, allErrors: true })
const validators = new Map<string, ReturnType<typeof ajv.compile>>()
async function validator(name: string) {
  const known = validators.get(name)
  if (known) return known
  const made = ajv.compile((await (await get(`schema/${name}`)).json()) as Json)
  validators.set(name, made)
  return made
}
async function faultsOf(name: string, value: unknown): Promise<string[]> {
  const validate = await validator(name)
  validate(value)
  return (validate.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`).slice(0, 5)
}

const withReadings = () => ({
  ...demoSession(),
  soundcheck: {
    readings: [
      { id: 'a', strip: 'narrator', stage: 'n3', reads: 'peak', value: -11.2, unit: 'dBFS' },
      { id: 'b', strip: 'narrator', stage: 'n3', reads: 'average', value: -31.2, unit: 'dBFS' },
    ],
  },
})
/** One gain far up, so that there is clipping that is carried on, and much to be fixed. */
const overdriven = () => {
  const session = JSON.parse(JSON.stringify(demoSession()))
  session.strips[0].stages[2].settings.gain = 60
  return session
}
const sessions: Record<string, () => unknown> = {
  'the demo with two readings': withReadings,
  'worked example 1': example1,
  'worked example 2': example2,
  'two mixes': twoMixes,
  'the demo, far too loud': overdriven,
  ...Object.fromEntries(templates.map((each) => [`the template ${each.id}`, () => templateSession(each)])),
}

describe('the description of the endpoints', () => {
  it('is OpenAPI 3.1, by a validator of its own', async () => {
    expect(await new Validator().validate(structuredClone(description))).toMatchObject({ valid: true })
    expect(description.openapi).toMatch(/^3\.1/)
  })
  it('names every endpoint, and each of them answers', async () => {
    expect(Object.keys(description.paths)).toEqual(Object.keys(endpoints))
    for (const [path, { method }] of Object.entries(endpoints)) {
      const url = `${server.address}${path.replace('{name}', 'session')}`
      const { status } = await fetch(url, { method: method.toUpperCase(), ...(method === 'post' && { body: 'x' }) })
      expect([200, 400, 422], `${path}: ${status}`).toContain(status)
    }
  })
  it('refers to nothing that is not there', () => {
    const refs = [...JSON.stringify(description).matchAll(/"\$ref":"([^"]*)"/g)].map(([, ref]) => ref as string)
    expect(refs.length).toBeGreaterThan(20)
    for (const ref of refs) {
      const id = ref.replace('#/components/schemas/', '')
      expect(Object.keys(description.components.schemas), ref).toContain(id)
    }
  })
})

describe('the schemas', () => {
  it('there is one of every name, sound by itself; of another name there is none, and it is said which there are', async () => {
    for (const name of schemaNames)
      expect(ajv.validateSchema((await (await get(`schema/${name}`)).json()) as Json), name).toBe(true)
    const none = await get('schema/nothing')
    expect(none.status).toBe(404)
    expect(await faultsOf('problem', await none.json())).toEqual([])
    expect((await post('schema/session', '')).status).toBe(405)
  })
  it.each(Object.entries(sessions))('every answer for %s is as its schema says', async (_, make) => {
    const text = JSON.stringify(make())
    for (const [path, name] of [
      ['evaluate', 'evaluation'],
      ['plan', 'plan'],
      ['timing', 'timing'],
      ['uncertainty', 'uncertainty'],
      ['soundcheck', 'soundcheck'],
    ] as const) {
      const { status, answer } = await post(path, text)
      expect(status, path).toBe(200)
      expect(await faultsOf(name, answer), path).toEqual([])
    }
  })
  it('what a figure is made of', async () => {
    const session = demoSession()
    for (const figure of [
      'average',
      'peak',
      'surgePeak',
      'headroom',
      'noise',
      'snr',
      'gain',
      'ceiling',
      'chance',
      'noise:preamp',
      'direct',
      'software',
    ]) {
      const { status, answer } = await post(
        'explain',
        JSON.stringify({ session, strip: 'narrator', stage: 'n3', figure }),
      )
      expect(status, figure).toBe(200)
      expect(await faultsOf('explanation', answer), figure).toEqual([])
    }
  })
  it.each([demoSession, overdriven])('what may be wrong, by every symptom', async (make) => {
    for (const symptom of symptomIds) {
      const { status, answer } = await post(
        'diagnose',
        JSON.stringify({ session: make(), strip: 'all', symptoms: [symptom], answers: {} }),
      )
      expect(status, symptom).toBe(200)
      expect(await faultsOf('diagnosis', answer), symptom).toEqual([])
    }
  })
  it('recordings', async () => {
    const tone = sine(48_000, 1, 997, -20)
    const levels = await post('measure/levels', writeWav([tone, new Float64Array(tone.length)], 48_000, 24))
    expect(await faultsOf('levels', levels.answer)).toEqual([])
    const burst = maximumLengthSequence(14, -6)
    const [played, returned] = [new Float64Array(20_000), new Float64Array(20_000)]
    played.set(burst, 100)
    returned.set(burst, 300)
    const lag = await post('measure/loopback?reference=1&return=2', writeWav([played, returned], 48_000, 24))
    expect(lag.status).toBe(200)
    expect(await faultsOf('loopback', lag.answer)).toEqual([])
  })
  it('problems of every kind', async () => {
    for (const [path, body, status] of [
      ['evaluate', 'no', 400],
      ['evaluate', '{}', 422],
      ['plan', `"${'x'.repeat(2_200_000)}"`, 413],
      ['explain', JSON.stringify({ session: demoSession(), strip: 'nobody' }), 422],
      ['measure/levels', 'no', 422],
      ['nothing', '', 404],
    ] as const) {
      const found = await post(path, body)
      expect(found.status, path).toBe(status)
      expect(await faultsOf('problem', found.answer), path).toEqual([])
    }
  })
  it('the session file: the demo is one, and what has a key too many or a wrong kind is none', async () => {
    const file = JSON.parse(JSON.stringify(demoSession()))
    expect(await faultsOf('session', { format: 'remetra.session', version: 2, ...file })).toEqual([])
    expect(await faultsOf('session', { format: 'remetra.session', version: 2, ...file, more: 1 })).not.toEqual([])
  })
  it('an answer with a key more or one less is not as its schema says', async () => {
    const { answer } = await post('evaluate', JSON.stringify(example1()))
    const [first] = answer.strips as Json[]
    expect(await faultsOf('evaluation', { strips: [{ ...first, more: 1 }] })).not.toEqual([])
    expect(await faultsOf('evaluation', { strips: [{ ...first, tightest: undefined }] })).not.toEqual([])
  })
})
