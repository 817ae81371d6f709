import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Session } from '#core/session'
import { demoSession } from '#demo/index'
import type { Fault } from '#core/files'
import { blankSession } from '#core/edits'
import { readEdited, readSession, readSessionText, writeSession } from '#core/files'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { example1, input, valid, withAt } from '../support/sessions'

const faultsOf = (raw: unknown): Fault[] => {
  const reading = readSession(raw)
  return reading.ok ? [] : reading.faults
}
const codes = (raw: unknown) => faultsOf(raw).map(({ path, code }) => `${path}: ${code}`)
const settings: (string | number)[] = ['strips', 0, 'stages', 2, 'settings']

describe('reading a session file', () => {
  it('completes a hand-written file with its defaults', () => {
    const session = valid({ ...example1(), system: undefined, target: undefined, room: undefined })
    expect(session.system).toEqual({ sampleRate: 48000, bitDepth: 24, bufferFrames: 128 })
    expect(session.target).toBe('peaks-18-12')
    expect(session.strips[0]?.stages[2]?.settings).toEqual({ gain: 35, phantom: true, pad: false })
    expect(session.strips[0]?.monitor).toEqual({ route: 'software', pluginFrames: 0 })
  })
  it('an input without a gain setting stands at its lowest; a source without a distance at the stated one', () => {
    const session = valid(withAt(withAt(example1(), settings, {}), ['strips', 0, 'stages', 0, 'settings'], {}))
    expect(session.strips[0]?.stages[2]?.settings.gain).toBe(0)
    expect(session.strips[0]?.stages[0]?.settings.distance).toBe(1)
  })
  it.each([
    [
      'a stage whose gear is missing',
      ['strips', 0, 'stages', 1, 'gear'],
      'nobody',
      'strips[0].stages[1].gear: no-such-gear',
    ],
    ['a gain out of range', [...settings, 'gain'], 61, 'strips[0].stages[2].settings.gain: out-of-range'],
    ['a gain beyond any range', [...settings, 'gain'], 1e6, 'strips[0].stages[2].settings.gain: too-big'],
    ['a duplicate gear id', ['gear', 1, 'id'], 'voice', 'gear[1].id: duplicate-id'],
    [
      'a duplicate stage id',
      ['strips', 0, 'stages', 1, 'id'],
      'narrator-source',
      'strips[0].stages[1].id: duplicate-id',
    ],
    ['1e309', ['gear', 0, 'specs', 'level'], JSON.parse('1e309'), 'gear[0].specs.level: wrong-type'],
    ['a 3 MB name', ['name'], 'x'.repeat(3e6), 'name: too-big'],
    ['an unknown key', ['gear', 0, 'colour'], 'red', 'gear[0].colour: unknown-key'],
    [
      'a setting of another kind',
      ['strips', 0, 'stages', 1, 'settings'],
      { pad: true },
      'strips[0].stages[1].settings.pad: unknown-key',
    ],
    ['no port', ['strips', 0, 'stages', 2, 'port'], undefined, 'strips[0].stages[2].port: missing'],
    ['an unknown port', ['strips', 0, 'stages', 2, 'port'], 'mic9', 'strips[0].stages[2].port: no-such-port'],
    ['a microphone with a port', ['strips', 0, 'stages', 1, 'port'], 'mic1', 'strips[0].stages[1].port: no-such-port'],
    [
      'phantom from an input without it',
      ['gear', 2, 'inputs', 0, 'phantom'],
      false,
      'strips[0].stages[2].settings.phantom: not-available',
    ],
    [
      'a gain range upside down',
      ['gear', 2, 'inputs', 0, 'specs', 'gainMin'],
      70,
      'gear[2].inputs[0].specs.gainMax: range',
    ],
    ['a window upside down', ['target'], { low: -6, high: -12 }, 'target.high: range'],
    ['an unknown school', ['target'], 'loud', 'target: not-an-option'],
    [
      'an output that the unit lacks',
      ['strips', 0, 'monitor'],
      { output: 'balcony' },
      'strips[0].monitor.output: no-such-output',
    ],
    [
      'a strip that begins with a microphone',
      ['strips', 0, 'stages', 0, 'gear'],
      'mic',
      'strips[0].stages[0].gear: order',
    ],
    ['an unknown kind', ['gear', 0, 'kind'], 'teapot', 'gear[0].kind: not-an-option'],
    [
      'knob positions out of order',
      ['gear', 2, 'inputs', 0, 'knob'],
      [
        { position: 9, gain: 0 },
        { position: 8, gain: 9 },
      ],
      'gear[2].inputs[0].knob[1].position: order',
    ],
    [
      'a measured value that is none of its specs',
      ['gear', 2, 'inputs', 0, 'measured'],
      { hum: { value: 3 } },
      'gear[2].inputs[0].measured.hum: unknown-key',
    ],
  ] as [string, (string | number)[], unknown, string][])('%s', (_, path, value, expected) => {
    expect(codes(withAt(example1(), path, value))).toContain(expected)
  })
  it('names all faults at once, of the structure and between the parts', () => {
    let file = withAt(example1(), ['name'], '')
    file = withAt(file, ['gear', 0, 'specs', 'crest'], 'high')
    file = withAt(file, ['strips', 0, 'stages', 1, 'gear'], 'nobody')
    file = withAt(file, [...settings, 'gain'], 61)
    expect(codes(file)).toEqual([
      'name: too-small',
      'gear[0].specs.crest: wrong-type',
      'strips[0].stages[1].gear: no-such-gear',
      'strips[0].stages[2].settings.gain: out-of-range',
    ])
  })
  it.each([
    [
      'a kind of gear',
      ['gear', 0, 'kind'],
      'teapot',
      /^Got "teapot"\. Give one of "sound-source", .*"di-box", .*"headphones"\.$/,
    ],
    [
      'a type of input',
      ['gear', 2, 'inputs', 0, 'type'],
      'phono',
      /Give one of "mic", "line", "instrument", "digital"\./,
    ],
  ] as const)('%s that is none is told with those that there are', (_, path, value, message) => {
    const reading = readSession(withAt(example1(), [...path], value))
    expect(reading.ok ? '' : reading.faults[0]?.message).toMatch(message)
  })
  it('every message says what was found and what to do', () => {
    const [fault] = faultsOf(withAt(example1(), [...settings, 'gain'], 61))
    expect(fault?.message).toBe(
      'Gain 61 dB is outside the range of this input, 0 to 60 dB. Set one inside it, or correct the range.',
    )
  })
  it('a measured full scale wins over the printed one and moves the level', () => {
    const file = withAt(example1(), ['gear', 2, 'inputs', 0, 'measured'], {
      fullScale: { value: 14.6, on: '2026-11-02', method: 'sine', spread: 0.1 },
    })
    expect(valid(file).gear[2]).toMatchObject({
      inputs: [{ specs: { fullScale: 15 }, measured: { fullScale: { value: 14.6 } } }],
    })
  })
  it.each([
    ['not JSON', '{"format": ', 'not-json', ''],
    ['empty', '', 'not-json', ''],
    ['a list', '[1]', 'other-format', ''],
    ['another format', '{"format":"something.else","version":1}', 'other-format', 'format'],
    ['version 99', '{"format":"remetra.session","version":99}', 'newer-version', 'version'],
    ['version "one"', '{"format":"remetra.session","version":"one"}', 'no-such-version', 'version'],
    ['a list of a million', `{"format":"remetra.session","version":1,"gear":[${'1,'.repeat(1e6)}1]}`, 'too-big', ''],
    [
      'sixty thousand values',
      `{"format":"remetra.session","version":1,"gear":[${'[1,1,1,1,1,1,1,1,1,1,1,1],'.repeat(900)}[${'[1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1,1],'.repeat(800)}1]]}`,
      'too-big',
      '',
    ],
    [
      'deep nesting',
      `{"format":"remetra.session","version":1,"gear":${'['.repeat(5000)}${']'.repeat(5000)}}`,
      'too-deep',
      '',
    ],
    ['a prototype key', '{"format":"remetra.session","version":1,"__proto__":{"x":1}}', 'unknown-key', '__proto__'],
  ])('%s', (_, text, code, path) => {
    const reading = readSessionText(text)
    expect(reading.ok ? [] : reading.faults.map((each) => `${each.path}: ${each.code}`)).toContain(`${path}: ${code}`)
  })
  it('any text gets an answer and never an exception', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.json(),
          fc.jsonValue().map((value) => JSON.stringify({ ...example1(), gear: value, strips: value })),
        ),
        (text) => {
          const reading = readSessionText(text)
          expect(reading.ok || reading.faults.every((fault) => fault.message.length > 0)).toBe(true)
        },
      ),
      { seed: 20261124, numRuns: 500 },
    )
  })
})

describe('writing a session file', () => {
  it.each([
    ['the demo', demoSession()],
    ['a blank session', blankSession('b', 'Blank')],
    ['example 1', valid(example1())],
  ])('%s comes back the same, byte for byte', (_, session) => {
    const text = writeSession(session)
    const again = readSessionText(text)
    expect(again.ok && again.session).toEqual(session)
    expect(again.ok && writeSession(again.session)).toBe(text)
  })
  it('the order of the keys does not depend on how the session came about', () => {
    const session = valid(example1())
    const shuffled = { ...session, strips: session.strips, name: session.name, format: session.format }
    expect(
      writeSession({
        ...shuffled,
        gear: session.gear.map(({ name, ...rest }) => ({ ...rest, name })) as typeof session.gear,
      }),
    ).toBe(writeSession(session))
  })
  it('a microphone input whose EIN nobody knows has a usual one, marked as assumed, also where it is cleared', () => {
    const unknown = valid(withAt(example1(), ['gear', 2, 'inputs', 0, 'specs', 'ein'], undefined))
    const usual = { specs: { ein: -127 }, assumed: ['ein'] }
    expect(unknown.gear[2]).toMatchObject({ inputs: [usual] })
    expect(evaluateSession(unknown).strips[0]?.points.at(-1)?.noise).toEqual(expect.any(Number))
    const given = valid(example1())
    expect(given.gear[2]).not.toMatchObject({ inputs: [{ assumed: ['ein'] }] })
    const cleared = readEdited(given, withAt(given, ['gear', 2, 'inputs', 0, 'specs', 'ein'], undefined) as Session)
    expect(cleared).toMatchObject({ ok: true, session: { gear: [{}, {}, { inputs: [usual] }] } })
    expect(valid(JSON.parse(writeSession(unknown))).gear).toEqual(unknown.gear)
    const measured = valid(
      withAt(
        withAt(example1(), ['gear', 2, 'inputs', 0, 'specs', 'ein'], undefined),
        ['gear', 2, 'inputs', 0, 'measured'],
        { ein: { value: -126, on: '2026-11-20', method: 'terminated' } },
      ),
    )
    expect(measured.gear[2]).not.toMatchObject({ inputs: [{ assumed: ['ein'] }] })
  })
  it('inputs of all types, with and without EIN', () => {
    expect(
      codes(withAt(example1(), ['gear', 2, 'inputs', 0], input('mic1', { type: 'line' }, { ein: undefined }))),
    ).toEqual([])
  })
})
