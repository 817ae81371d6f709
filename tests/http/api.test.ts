import { request } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { templates, templateSession } from '#demo/templates'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { planSession } from '#core/plan/plan-session'
import { maximumLengthSequence, sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { timeSession } from '#core/timing/time-session'
import { serve } from '../../scripts/steps.mjs'
import { example1, example2, withAt } from '../support/sessions'

let server: Awaited<ReturnType<typeof serve>>
beforeAll(async () => {
  server = await serve()
})
afterAll(() => server.stop())

const post = (endpoint: string, body: string | Uint8Array) =>
  fetch(`${server.address}/api/${endpoint}`, {
    method: 'POST',
    body: body as never,
    headers: { 'content-type': 'application/json' },
  })
const evaluate = async (file: unknown) => (await post('evaluate', JSON.stringify(file))).json()

async function problem(response: Response, status: number) {
  expect(response.status).toBe(status)
  expect(response.headers.get('content-type')).toContain('application/problem+json')
  const text = await response.text()
  expect(text).not.toMatch(/\bat .*\.(mjs|js|ts):\d+|node_modules/)
  return JSON.parse(text)
}

describe('the HTTP endpoint, over a real socket', () => {
  it('worked example 1: −30.48 dBFS, peak −19.49, noise −80.75, SNR 50.28', async () => {
    const {
      strips: [strip],
    } = await evaluate(example1())
    const end = strip.points[2]
    expect(end.unit).toBe('dBFS')
    for (const [key, expected] of [
      ['average', -30.48],
      ['peak', -19.49],
      ['surgePeak', -13.49],
      ['headroom', 19.49],
      ['noise', -80.75],
      ['snr', 50.28],
    ] as const) {
      expect(Math.abs(end[key] - expected)).toBeLessThan(0.05)
    }
    expect(strip.noise[0]).toMatchObject({ name: 'room' })
    expect(strip.latency.map((each: { route: string }) => each.route)).toEqual(['direct', 'software'])
  })
  it('worked example 2: −22.68 dBFS, noise −89.37, SNR 66.69', async () => {
    const end = (await evaluate(example2())).strips[0].points[2]
    expect(Math.abs(end.average + 22.68)).toBeLessThan(0.05)
    expect(Math.abs(end.noise + 89.37)).toBeLessThan(0.05)
    expect(Math.abs(end.snr - 66.69)).toBeLessThan(0.05)
  })
  it('answers what the core answers, for evaluation and plan', async () => {
    const demo = demoSession()
    expect(await evaluate(demo)).toEqual(JSON.parse(JSON.stringify(evaluateSession(demo))))
    const plan = await (await post('plan', JSON.stringify(demo))).json()
    expect(plan).toEqual(JSON.parse(JSON.stringify(planSession(demo))))
    expect(plan.settings[0]).toMatchObject({ strip: 'narrator', stage: 'n3', setting: 'gain', from: 35, to: 39 })
  })
  it.each(templates.map((each) => [each.id, each] as const))(
    'answers for the chain "%s" what the core answers',
    async (_, template) => {
      const session = templateSession(template)
      expect(await evaluate(session)).toEqual(JSON.parse(JSON.stringify(evaluateSession(session))))
    },
  )
  it('answers the timing of a session: the table of buffers, a recommendation, what is wrong with the clock', async () => {
    const file = {
      ...example1(),
      system: { sampleRate: 48000, bufferFrames: 128, devices: [{ name: 'Camera', sampleRate: 44100 }] },
    }
    const timing = await (await post('timing', JSON.stringify(file))).json()
    const cell = timing.matrix.find(
      (each: { sampleRate: number; bufferFrames: number }) => each.sampleRate === 48000 && each.bufferFrames === 128,
    )
    expect(cell).toMatchObject({ source: 'model' })
    expect(Math.abs(cell.bufferMs - 2.667)).toBeLessThan(0.001)
    expect(Math.abs(cell.softwareMs - 7.667)).toBeLessThan(0.001)
    expect(timing.recommendations[0]).toMatchObject({ strip: 'narrator', route: 'software', bufferFrames: 128 })
    expect(timing.findings.map((each: { code: string }) => each.code)).toContain('rate-mismatch')
    const demo = demoSession()
    expect(await (await post('timing', JSON.stringify(demo))).json()).toEqual(
      JSON.parse(JSON.stringify(timeSession(demo))),
    )
    await problem(
      await post(
        'timing',
        JSON.stringify({ ...file, system: { roundTrips: [{ sampleRate: 48000, bufferFrames: 0, milliseconds: -1 }] } }),
      ),
      422,
    )
  })
  it('measures the levels of a WAV file as it streams in', async () => {
    const report = await (
      await post('measure/levels', writeWav([sine(48_000, 5, 997, -23), sine(48_000, 5, 997, -23)], 48_000, 24))
    ).json()
    expect(report.format).toMatchObject({ bits: 24, channels: 2, sampleRate: 48_000, frames: 240_000 })
    expect(report.channels).toHaveLength(2)
    // The drawing of the level over time is the screen's.
    expect(Object.keys(report.channels[0])).toEqual(
      expect.arrayContaining(['peak', 'truePeak', 'rms', 'rmsA', 'crest', 'dc', 'clippedRuns', 'floor', 'integrated']),
    )
    expect(report.channels[0]).not.toHaveProperty('overview')
    expect(Math.abs(report.channels[0].peak + 23)).toBeLessThan(0.01)
    expect(Math.abs(report.programme.integrated + 23)).toBeLessThan(0.05)
    expect(await problem(await post('measure/levels', new TextEncoder().encode('no recording')), 422)).toMatchObject({
      errors: [{ code: 'not-wav' }],
    })
  })
  it('finds the lag of a loopback, by channel numbers from 1', async () => {
    const sent = maximumLengthSequence(14, -6)
    const [reference, returned] = [new Float64Array(20_000), new Float64Array(20_000)]
    reference.set(sent, 100)
    returned.set(
      sent.map((x) => -0.5 * x),
      100 + 368,
    )
    const wav = writeWav([returned, reference], 48_000, 24)
    const found = await (await post('measure/loopback?reference=2&return=1', wav)).json()
    expect(Math.abs(found.lagFrames - 368)).toBeLessThan(0.02)
    expect(Math.abs(found.milliseconds - 7.667)).toBeLessThan(0.001)
    expect(found.polarity).toBe(-1)
    expect(found.repeats).toHaveLength(1)
    expect(Math.abs(found.level + 6.02)).toBeLessThan(0.05)
    expect(
      (await problem(await post('measure/loopback?reference=0', wav), 422)).errors.map(
        (each: { path: string }) => each.path,
      ),
    ).toEqual(['reference', 'return'])
    expect((await problem(await post('measure/loopback?reference=1&return=3', wav), 422)).errors[0].code).toBe(
      'no-such-channel',
    )
  })
  it('gives the JSON Schema of the file', async () => {
    const response = await fetch(`${server.address}/api/schema/session`)
    const schema = await response.json()
    expect(schema.$schema).toContain('2020-12')
    expect(schema.properties.format.const).toBe('remetra.session')
    expect(schema.required).toEqual(expect.arrayContaining(['format', 'version', 'gear', 'strips']))
    expect(schema.required).not.toContain('target')
  })
  it('422 with every fault at once, each with its path', async () => {
    const file = withAt(
      withAt(example1(), ['strips', 0, 'stages', 2, 'settings', 'gain'], 61),
      ['gear', 0, 'specs', 'crest'],
      'high',
    )
    const { errors } = await problem(await post('evaluate', JSON.stringify(file)), 422)
    expect(errors.map((each: { path: string }) => each.path)).toEqual([
      'gear[0].specs.crest',
      'strips[0].stages[2].settings.gain',
    ])
    expect(errors[0]).toMatchObject({ code: 'wrong-type', message: expect.stringContaining('Give a number') })
  })
  it('400 for what is not JSON, 413 over 2 MiB, 404 for another endpoint, 405 or 404 for another method', async () => {
    await problem(await post('plan', '{"format":'), 400)
    await problem(await post('evaluate', ''), 400)
    await problem(await post('evaluate', `"${'x'.repeat(2 * 1024 * 1024)}"`), 413)
    await problem(await fetch(`${server.address}/api/evaluate`), 404)
    await problem(await post('nothing', '{}'), 404)
  })
  it('413 also when the body comes in pieces without a length', async () => {
    const status = await new Promise<number>((resolve, reject) => {
      const { port } = new URL(server.address)
      const call = request(
        { port, host: '127.0.0.1', path: '/api/evaluate', method: 'POST', headers: { 'transfer-encoding': 'chunked' } },
        (response) => resolve(response.statusCode ?? 0),
      )
      call.on('error', reject)
      for (let i = 0; i < 40; i++) call.write(Buffer.alloc(64 * 1024, 120))
      call.end()
    })
    expect(status).toBe(413)
  })
  it('any bytes get a clear answer', async () => {
    let seed = 20261124
    const byte = () => ((seed = (seed * 1103515245 + 12345) & 0x7fffffff) >> 16) & 255
    const bodies: (string | Uint8Array)[] = [
      ...Array.from({ length: 20 }, (_, i) => Uint8Array.from({ length: 1 + i * 37 }, byte)),
      '['.repeat(100_000),
      `{"a":${'['.repeat(50_000)}${']'.repeat(50_000)}}`,
      'null',
      '1e309',
      '"\u0000"',
      `[${'0,'.repeat(900_000)}0]`,
      JSON.stringify(withAt(example1(), ['name'], 'x'.repeat(1_900_000))),
      JSON.stringify(
        withAt(
          example1(),
          ['gear'],
          Array.from({ length: 900 }, () => ({ kind: 'interface', inputs: Array.from({ length: 100 }, () => ({})) })),
        ),
      ),
    ]
    for (const body of bodies) {
      const response = await post('evaluate', body)
      expect([400, 413, 422]).toContain(response.status)
      expect((await response.json()).detail.length).toBeGreaterThan(10)
    }
  })
})
