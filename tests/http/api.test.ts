import type { IncomingHttpHeaders } from 'node:http'
import { request } from 'node:http'
import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { templates, templateSession } from '#demo/templates'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { planSession } from '#core/plan/plan-session'
import { maximumLengthSequence, sine } from '#core/signals/generate'
import { writeWav } from '#core/signals/write-wav'
import { timeSession } from '#core/timing/time-session'
import { serve } from '../../scripts/steps.mjs'
import { manyLong } from '../speed/subjects'
import { ask } from '../support/ask'
import { twoMixes } from '../support/desk'
import { example1, example2, withAt } from '../support/sessions'

let server: Awaited<ReturnType<typeof serve>>
beforeAll(async () => {
  server = await serve()
})
afterAll(() => server.stop())

const post = (endpoint: string, body: string | Uint8Array) =>
  ask(`${server.address}/api/${endpoint}`, {
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
  it('two mixes of a desk: sums, feedback, stream, and the plan of the busses', async () => {
    const { strips } = await evaluate(twoMixes())
    const [stream, room] = strips.slice(3)
    expect(Math.abs(stream.sum.likely - 1.63)).toBeLessThan(0.05)
    expect(Math.abs(stream.sum.bound - 6.59)).toBeLessThan(0.05)
    expect(Math.abs(stream.stream.gain - 6.63)).toBeLessThan(0.05)
    expect(Math.abs(room.feedback.margin - 17.35)).toBeLessThan(0.05)
    expect(new Set(stream.noise.map((each: { strip: string }) => each.strip))).toEqual(
      new Set(['alto', 'bass', 'player', 'stream']),
    )
    const plan = await (await post('plan', JSON.stringify(twoMixes()))).json()
    expect(plan.strips.map(({ strip }: { strip: string }) => strip)).toEqual([
      'alto',
      'bass',
      'player',
      'stream',
      'room',
    ])
    const round = {
      ...twoMixes(),
      strips: twoMixes().strips.map((each) =>
        each.id === 'room' ? { ...each, feeds: [{ to: 'room', from: 'r1' }] } : each,
      ),
    }
    const { errors } = await problem(await post('evaluate', JSON.stringify(round)), 422)
    expect(errors).toMatchObject([{ path: 'strips[4].feeds[0].to', code: 'circle' }])
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
    expect(timing.recommendations[0]).toMatchObject({ strip: 'narrator', route: 'software', bufferFrames: 64 })
    expect(timing.findings.map((each: { code: string }) => each.code)).toContain('rate-mismatch')
    const demo = demoSession()
    const { remedies, ...timed } = await (await post('timing', JSON.stringify(demo))).json()
    expect(timed).toEqual(JSON.parse(JSON.stringify(timeSession(demo))))
    expect(remedies[0]).toBe('Raise the buffer: 256 would bring the load from 55 % to 41 %.')
    await problem(
      await post(
        'timing',
        JSON.stringify({ ...file, system: { roundTrips: [{ sampleRate: 48000, bufferFrames: 0, milliseconds: -1 }] } }),
      ),
      422,
    )
  })
  it('answers a complaint: causes that add to 1, what to check next, and a fix that was tried', async () => {
    const session = demoSession()
    // One switch feeds both.
    for (const strip of session.strips.slice(0, 2)) {
      const stage = strip.stages[2]
      if (stage) stage.settings = { ...stage.settings, phantom: false }
    }
    const asked = { session, strip: 'narrator', symptoms: ['nothing'], answers: { 'where-it-dies': 'input' } }
    const { causes, next } = await (await post('diagnose', JSON.stringify(asked))).json()
    const sum = causes.reduce((total: number, { probability }: { probability: number }) => total + probability, 0)
    expect(sum).toBeCloseTo(1, 9)
    expect(causes[0]).toMatchObject({ id: 'phantom-missing', fix: { changes: expect.any(Array) } })
    expect(causes[0].evidence[0].says).toContain('48 V')
    expect(causes.map(({ id }: { id: string }) => id)).toContain('something-else')
    expect(next.check).toBeTypeOf('string')
    const faults = await problem(
      await post(
        'diagnose',
        JSON.stringify({
          session,
          strip: 'nobody',
          symptoms: ['itches'],
          when: 'never',
          answers: { 'phantom-lamp': 'blue', 'ask-a-friend': 'yes' },
          more: 1,
        }),
      ),
      422,
    )
    expect(faults.errors.map(({ path }: { path: string }) => path)).toEqual([
      'more',
      'strip',
      'symptoms[0]',
      'when',
      'answers.phantom-lamp',
      'answers.ask-a-friend',
    ])
    await problem(await post('diagnose', '{'), 400)
    const broken = await problem(await post('diagnose', JSON.stringify({ ...asked, session: { format: 'x' } })), 422)
    expect(broken.errors[0].path).toMatch(/^session/)
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
  it('400 for what is not JSON, 413 over 2 MiB, 404 for another endpoint', async () => {
    await problem(await post('plan', '{"format":'), 400)
    await problem(await post('evaluate', ''), 400)
    await problem(await post('evaluate', `"${'x'.repeat(2 * 1024 * 1024)}"`), 413)
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
  it('a known path with another method: 405 and which one is', async () => {
    const response = await fetch(`${server.address}/api/evaluate`)
    expect(response.headers.get('allow')).toBe('POST')
    await problem(response, 405)
    const other = await fetch(`${server.address}/api/schema/session`, { method: 'DELETE' })
    expect(other.headers.get('allow')).toBe('GET, HEAD')
    await problem(other, 405)
  })
  it('gzip is unpacked, up to the same limit; another packing is refused by its name; bytes that are no UTF-8 too', async () => {
    const packed = (body: Uint8Array, encoding: string) =>
      fetch(`${server.address}/api/evaluate`, {
        method: 'POST',
        body: body as never,
        headers: { 'content-encoding': encoding },
      })
    const plain = await evaluate(example1())
    expect(await (await packed(gzipSync(JSON.stringify(example1())), 'gzip')).json()).toEqual(plain)
    await problem(await packed(gzipSync(Buffer.alloc(50 * 1024 * 1024, 32)), 'gzip'), 413)
    await problem(await packed(Buffer.from('no gzip at all'), 'gzip'), 400)
    expect((await problem(await packed(Buffer.from('x'), 'br'), 415)).detail).toContain('"br"')
    expect((await problem(await post('evaluate', Uint8Array.of(0x22, 0xff, 0xfe, 0x22)), 400)).title).toBe('Not UTF-8')
  })
  it('no page of another site may ask, by its own name or by one that it points here; nothing is shared across origins', async () => {
    /** A request with headers that fetch would not send. */
    const raw = (headers: Record<string, string>) =>
      new Promise<{ status: number; headers: IncomingHttpHeaders; body: string }>((resolve, reject) => {
        const { port } = new URL(server.address)
        const call = request(
          { port, host: '127.0.0.1', path: '/api/evaluate', method: 'POST', headers },
          async (response) => {
            let body = ''
            for await (const chunk of response) body += chunk
            resolve({ status: response.statusCode ?? 0, headers: response.headers, body })
          },
        )
        call.on('error', reject)
        call.end(JSON.stringify(example1()))
      })
    const { host } = new URL(server.address)
    const own = await raw({ host, origin: `http://${host}` })
    expect(own.status).toBe(200)
    expect(Object.keys(own.headers).filter((name) => name.startsWith('access-control'))).toEqual([])
    expect((await raw({ host, origin: 'http://elsewhere.example' })).status).toBe(403)
    expect((await raw({ host, origin: 'null' })).status).toBe(403)
    expect((await raw({ host: 'elsewhere.example' })).status).toBe(421)
    expect((await raw({ host: '192.0.2.7:3000' })).status).toBe(200)
  })
  it('a small header that promises much is answered at once', async () => {
    const header = Buffer.alloc(172)
    header.set(Buffer.from(writeWav([new Float64Array(0)], 48_000, 16)).subarray(0, 44))
    header.writeUInt16LE(32, 22)
    header.writeUInt32LE(1_000_000, 24)
    header.writeUInt16LE(64, 32)
    header.writeUInt32LE(128, 40)
    const from = performance.now()
    const answer = await problem(await post('measure/levels', header), 422)
    expect(answer.errors[0].code).toBe('too-much')
    // It was 26 s; a second is far from both.
    expect(performance.now() - from).toBeLessThan(1000)
  })
  it('while a recording is measured, small questions are answered; the recording too', async () => {
    // Long enough that small questions come in between, short enough that a slow machine takes it in within the server's time.
    const tone = sine(96_000, 15, 997, -23)
    const measuring = post('measure/levels', writeWav([tone, tone, tone, tone], 96_000, 24))
    let answered = 0
    let done = false
    const small = (async () => {
      while (!done) if ((await post('evaluate', JSON.stringify(example1()))).ok) answered++
    })()
    const report = await (await measuring).json()
    done = true
    await small
    expect(report.channels).toHaveLength(4)
    // How many is the machine’s affair; that they are not held up until the recording is done is the rule.
    expect(answered).toBeGreaterThan(2)
  })
  it('two hundred large questions at once are answered or told to wait, and a small one goes between', async () => {
    const large = JSON.stringify(manyLong)
    expect(large.length).toBeGreaterThan(32 * 1024)
    const from = performance.now()
    const all = Array.from({ length: 200 }, async () => {
      const response = await post('plan', large)
      if (response.status === 503) expect(Number(response.headers.get('retry-after'))).toBeGreaterThan(0)
      await response.text()
      return { status: response.status, at: performance.now() - from }
    })
    expect((await post('evaluate', JSON.stringify(example1()))).status).toBe(200)
    const small = performance.now() - from
    const answers = await Promise.all(all)
    expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200, 503]))
    expect(small).toBeLessThan(Math.max(...answers.map(({ at }) => at)))
  })
  it('a caller that goes away in the middle leaves the server as it was, and nothing in its log', async () => {
    for (const endpoint of ['evaluate', 'measure/levels']) {
      const { port } = new URL(server.address)
      const call = request({ port, host: '127.0.0.1', path: `/api/${endpoint}`, method: 'POST' })
      call.on('error', () => undefined)
      call.write(Buffer.from(writeWav([sine(48_000, 1, 997, -23)], 48_000, 24)).subarray(0, 50_000))
      await new Promise((resolve) => setTimeout(resolve, 100))
      call.destroy()
    }
    await new Promise((resolve) => setTimeout(resolve, 200))
    expect((await post('evaluate', JSON.stringify(example1()))).status).toBe(200)
    expect(server.log()).toBe('')
  })
  it('uploads that break off do not keep the next recording waiting', async () => {
    const { port } = new URL(server.address)
    const bytes = Buffer.from(writeWav([sine(48_000, 2, 997, -23)], 48_000, 24))
    for (let i = 0; i < 8; i++) {
      const call = request({ port, host: '127.0.0.1', path: '/api/measure/levels', method: 'POST' })
      call.on('error', () => undefined)
      call.setHeader('content-length', bytes.length)
      call.write(bytes.subarray(0, 60_000))
      await new Promise((resolve) => setTimeout(resolve, 50))
      call.destroy()
    }
    const from = performance.now()
    expect((await post('measure/levels', bytes)).status).toBe(200)
    // It was 300 s; a worker that is given nothing ends after 10.
    expect(performance.now() - from).toBeLessThan(60_000)
    expect(server.log()).toBe('')
  })
  it('an upload that stops coming is told so and lets its worker go', { timeout: 60_000 }, async () => {
    const { port } = new URL(server.address)
    const bytes = Buffer.from(writeWav([sine(48_000, 2, 997, -23)], 48_000, 24))
    const status = await new Promise<number>((resolve, reject) => {
      const call = request({ port, host: '127.0.0.1', path: '/api/measure/levels', method: 'POST' }, (answer) => {
        answer.resume()
        resolve(answer.statusCode ?? 0)
      })
      call.on('error', reject)
      call.setHeader('content-length', bytes.length)
      call.write(bytes.subarray(0, 60_000))
    })
    expect(status).toBe(408)
    expect((await post('measure/levels', bytes)).status).toBe(200)
  })
  it('a queue that is full says so at once, not when its time is up', { timeout: 120_000 }, async () => {
    const body = JSON.stringify(manyLong)
    const all = Array.from({ length: 60 }, async () => {
      const from = performance.now()
      const response = await post('plan', body)
      await response.text()
      return { status: response.status, after: performance.now() - from }
    })
    // While all of them wait, a short question has a thread of its own.
    const short = performance.now()
    expect((await post('timing', JSON.stringify(demoSession()))).status).toBe(200)
    const shortTook = performance.now() - short
    const answers = await Promise.all(all)
    const refused = answers.filter(({ status }) => status === 503)
    expect(refused.length).toBeGreaterThanOrEqual(60 - 33 - 1)
    expect(Math.min(...refused.map(({ after }) => after))).toBeLessThan(
      Math.min(...answers.filter(({ status }) => status === 200).map(({ after }) => after)),
    )
    expect(shortTook).toBeLessThan(Math.max(...answers.map(({ after }) => after)))
  })
  it('a plan of a hundred strips does not hold the server’s own thread', async () => {
    const demo = demoSession()
    const [strip] = demo.strips
    const hundred = {
      ...demo,
      strips: Array.from({ length: 100 }, (_, i) => ({
        ...strip,
        feeds: undefined,
        id: `s${i}`,
        stages: strip?.stages.map((stage) => ({ ...stage, id: `${stage.id}-${i}` })),
      })),
    }
    let done = false
    const planning = post('plan', JSON.stringify(hundred)).then((answer) => {
      done = true
      return answer
    })
    let answered = 0
    while (!done) if ((await post('evaluate', JSON.stringify(example1()))).ok && !done) answered++
    expect((await planning).status).toBe(200)
    expect(answered).toBeGreaterThan(2)
  })
  it('a body without an end is cut at its limit', async () => {
    const { port } = new URL(server.address)
    const sent = await new Promise<number>((resolve) => {
      let bytes = 0
      const call = request({ port, host: '127.0.0.1', path: '/api/evaluate', method: 'POST' })
      const piece = Buffer.alloc(64 * 1024, 32)
      const more = setInterval(() => {
        call.write(piece)
        bytes += piece.length
      }, 5)
      const end = () => {
        clearInterval(more)
        resolve(bytes)
      }
      call.on('error', end)
      call.on('close', end)
    })
    expect(sent).toBeGreaterThan(2 * 1024 * 1024)
    expect(sent).toBeLessThan(200 * 1024 * 1024)
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

describe('how sure it is, over HTTP', () => {
  it('a page may listen to an input, for this origin only; nothing else of the device is open', async () => {
    const policy = (await fetch(server.address)).headers.get('permissions-policy') ?? ''
    expect(policy).toContain('microphone=(self)')
    expect(policy).toContain('camera=()')
  })
  it('POST /api/soundcheck: the run sheet, and what a reading 4 dB over the plan says (DOMAIN: level 2.88 dB of it)', async () => {
    const file = { ...(example1() as object), target: { low: -24, high: -18 } }
    const reading = {
      id: 'r1',
      strip: 'narrator',
      stage: 'narrator-input',
      reads: 'peak',
      value: -15.49,
      unit: 'dBFS',
      spread: 0.5,
    }
    const session = {
      ...file,
      version: 2,
      soundcheck: { readings: [reading], ticks: [{ step: 'narrator.narrator-input.gain' }] },
    }
    const answer = await (await post('soundcheck', JSON.stringify(session))).json()
    expect(answer.readings[0]).toMatchObject({ id: 'r1', contradicts: null })
    expect(answer.readings[0].difference).toBeCloseTo(4, 1)
    const [first] = answer.readings[0].explains
    expect(first.input).toBe('gear.voice.level')
    expect(Math.abs(first.shift - 2.88)).toBeLessThan(0.03)
    expect(answer.readings[0].changes).toEqual([
      { strip: 'narrator', stage: 'narrator-input', setting: 'gain', to: expect.any(Number) },
    ])
    expect(answer.steps.find(({ id }: { id: string }) => id === 'narrator.narrator-input.gain').state).toBe('done')
    expect(answer.open).toBe(answer.steps.length - 1)
  })
  it('POST /api/uncertainty: worked example 1: u 3.37 at the recorder, 0.018 % risk of clipping, and what to do first', async () => {
    const answer = await (await post('uncertainty', JSON.stringify(example1()))).json()
    const [strip] = answer.strips
    const end = strip.points.at(-1)
    expect(end.stage).toBe('narrator-input')
    expect(end.peak.value).toBeCloseTo(-19.49, 2)
    expect(end.peak.u).toBeCloseTo(3.37, 2)
    expect(end.peak.shares[0]).toMatchObject({ input: 'gear.voice.level' })
    expect(strip.chanceOfClipping.surge).toBeCloseTo(0.000185, 5)
    expect(answer.next[0]).toMatchObject({ what: 'Take a peak reading at the recorder', strip: 'narrator', minutes: 1 })
    expect(answer.inputs.find((each: { path: string }) => each.path === 'room.ambient')).toMatchObject({
      origin: 'assumed',
    })
  })
  it('POST /api/uncertainty?draws=0: the straight line alone; another value is refused with its name', async () => {
    const body = JSON.stringify(demoSession())
    const [line, drawn] = (await Promise.all(
      ['uncertainty?draws=0', 'uncertainty'].map(async (path) => (await post(path, body)).text()),
    )) as [string, string]
    expect(line).toContain('"curved":true')
    expect(line).not.toContain('"interval"')
    expect(drawn).toContain('"interval"')
    const answer = await problem(await post('uncertainty?draws=many', body), 422)
    expect(answer.errors[0].path).toBe('draws')
  })
  it('POST /api/explain: the formula in text and MathML, its source, the inputs', async () => {
    const ask = { session: example1(), strip: 'narrator', stage: 'narrator-input', figure: 'headroom' }
    const answer = await (await post('explain', JSON.stringify(ask))).json()
    expect(answer.result.value).toBeCloseTo(19.49, 2)
    expect(answer.formula).toMatchObject({ id: 'levels-headroom' })
    expect(answer.formula.mathml).toContain('<math')
    expect(answer.inputs[1].figure).toEqual({ strip: 'narrator', stage: 'narrator-input', figure: 'peak' })
  })
  it('says what is wrong with the question, with its path', async () => {
    const ask = { session: example1(), strip: 'narrator', stage: 'narrator-input', figure: 'headroom' }
    const paths = async (body: unknown) =>
      (await problem(await post('explain', JSON.stringify(body)), 422)).errors.map(
        (each: { path: string }) => each.path,
      )
    expect(await paths({ ...ask, strip: 'nobody' })).toEqual(['strip'])
    expect(await paths({ ...ask, stage: 'nowhere' })).toEqual(['stage'])
    expect(await paths({ ...ask, figure: 'colour' })).toEqual(['figure'])
    expect(await paths({ ...ask, figure: 7 })).toEqual(['figure'])
    expect(await paths({ ...ask, session: { ...example1(), strips: [] } })).toEqual(['session.strips'])
    expect(await paths([])).toEqual([''])
    await problem(await post('explain', '{'), 400)
  })
})
