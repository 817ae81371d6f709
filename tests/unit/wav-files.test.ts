import { describe, expect, it } from 'vitest'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { sine } from '#core/signals/generate'
import { seeded } from '#core/numeric/random'
import { writeWav } from '#core/signals/write-wav'

const measure = (bytes: Uint8Array, piece = 997) => {
  const meter = new LevelsMeter()
  for (let at = 0; at < bytes.length; at += piece) meter.push(bytes.subarray(at, at + piece))
  return meter.end()
}
const file = () => writeWav([sine(48_000, 0.2, 997, -6), sine(48_000, 0.2, 500, -20)], 48_000, 24)
const fault = (bytes: Uint8Array) => {
  const result = measure(bytes)
  return result.ok ? null : result.fault
}
/** A copy with some bytes changed. */
const patched = (bytes: Uint8Array, at: number, values: number[]) => {
  const copy = bytes.slice()
  copy.set(values, at)
  return copy
}
const chunk = (name: string, body: number[]) => [
  ...[...name].map((letter) => letter.charCodeAt(0)),
  body.length & 255,
  body.length >> 8,
  0,
  0,
  ...body,
  ...(body.length % 2 ? [0] : []),
]
const head = (kind = 'RIFF') => [
  ...[...kind].map((letter) => letter.charCodeAt(0)),
  255,
  255,
  255,
  255,
  ...[...'WAVE'].map((letter) => letter.charCodeAt(0)),
]

/** The body of a broadcast extension (EBU Tech 3285, version 1). */
const broadcast = () => {
  const body = new Uint8Array(602 + 27)
  const write = (at: number, words: string) =>
    [...words].forEach((letter, i) => {
      body[at + i] = letter.charCodeAt(0)
    })
  write(0, 'Sluice at low water')
  write(256, 'Net loft')
  write(320, '2026-11-25')
  write(330, '03:30:00')
  new DataView(body.buffer).setBigUint64(338, 604_800_000n, true)
  body[346] = 1
  write(602, 'A=PCM,F=48000,W=24,M=stereo')
  return [...body]
}

describe('reading WAV files', () => {
  it('in pieces of any size the same', () => {
    const whole = measure(file(), 1e9)
    for (const piece of [1, 7, 44, 4097]) expect(measure(file(), piece)).toEqual(whole)
  })
  it('RF64 with its long size, extensible, with chunks before the samples and a broadcast extension', () => {
    const samples = [...file().slice(44)]
    const bytes = new Uint8Array([
      ...head('RF64'),
      ...chunk('ds64', [
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        samples.length & 255,
        (samples.length >> 8) & 255,
        samples.length >> 16,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
      ]),
      ...chunk('bext', broadcast()),
      ...chunk('LIST', [9]),
      ...chunk(
        'fmt ',
        [
          0xfe, 0xff, 2, 0, 0x80, 0xbb, 0, 0, 0, 0, 0, 0, 6, 0, 24, 0, 22, 0, 24, 0, 3, 0, 0, 0, 1, 0, 0, 0, 0, 0, 16,
          0, 128, 0, 0, 170, 0, 56, 155, 113,
        ],
      ),
      ...[...'data'].map((letter) => letter.charCodeAt(0)),
      255,
      255,
      255,
      255,
      ...samples,
    ])
    const result = measure(bytes)
    expect(result.ok && result.report.format).toMatchObject({
      bits: 24,
      channels: 2,
      frames: 9600,
      broadcast: {
        description: 'Sluice at low water',
        originator: 'Net loft',
        date: '2026-11-25',
        time: '03:30:00',
        timeReference: 604_800_000,
        version: 1,
        history: 'A=PCM,F=48000,W=24,M=stereo',
      },
    })
    expect(result.ok && result.report.channels[0]?.peak).toBeCloseTo(-6, 1)
  })
  it('a broadcast extension cut short is left out, and told', () => {
    const result = measure(new Uint8Array([...head(), ...chunk('bext', [1, 2, 3]), ...file().slice(12)]))
    expect(result.ok && result.report.format.broadcast).toBeNull()
    expect(result.ok && result.report.remarks.join()).toContain('broadcast extension is cut short')
  })
  it('cut short: what is there, and that it ends early', () => {
    const result = measure(file().slice(0, 44 + 6 * 1000 + 3))
    expect(result.ok && result.report.format.frames).toBe(1000)
    expect(result.ok && result.report.remarks.join()).toContain('8600 frames before its header says')
  })
  it('a length that was never written is read to the file’s end', () => {
    const result = measure(patched(file(), 40, [255, 255, 255, 255]))
    expect(result.ok && result.report.format.frames).toBe(9600)
    expect(result.ok && result.report.remarks).toHaveLength(1)
  })
  it('floating-point samples that are no numbers count as silence, and are told', () => {
    const bytes = writeWav([sine(48_000, 0.1, 997, -6)], 48_000, 'float')
    new DataView(bytes.buffer).setFloat32(44 + 400, Number.NaN, true)
    new DataView(bytes.buffer).setFloat32(44 + 404, Infinity, true)
    const result = measure(bytes)
    expect(result.ok && result.report.remarks.join()).toContain('no numbers')
    expect(result.ok && result.report.channels[0]?.peak).toBeCloseTo(-6, 1)
  })
  it.each([
    ['nothing', new Uint8Array(0), 'not-wav'],
    ['text', new TextEncoder().encode('This is no recording at all, but a letter.'), 'not-wav'],
    ['only a header', file().slice(0, 44), 'no-samples'],
    ['a compressed format', patched(file(), 20, [0x55, 0]), 'compressed'],
    ['no channels', patched(file(), 22, [0, 0]), 'channels'],
    ['a wrong frame size', patched(file(), 32, [5, 0]), 'frame-size'],
    ['12 bits', patched(file(), 34, [12, 0]), 'bits'],
    ['no format', new Uint8Array([...head(), ...chunk('data', [1, 2])]), 'no-format'],
    ['a rate of 0', patched(file(), 24, [0, 0, 0, 0]), 'sample-rate'],
  ])('%s is answered in words', (_, bytes, code) => {
    expect(fault(bytes)?.code).toBe(code)
    expect(fault(bytes)?.message.length).toBeGreaterThan(30)
  })
  it('2,000 mutated files: a result or words, never a crash, never a level that is no number', () => {
    const random = seeded(20261124)
    const whole = file().slice(0, 44 + 6 * 600)
    for (let i = 0; i < 2000; i++) {
      const bytes = whole.slice(0, random() < 0.3 ? Math.floor(random() * whole.length) : whole.length)
      for (let k = 0; k < 1 + 6 * random(); k++)
        bytes[Math.floor(random() * (random() < 0.7 ? 44 : bytes.length))] = Math.floor(256 * random())
      const result = measure(bytes, 512)
      if (result.ok) expect(JSON.stringify(result.report)).not.toMatch(/NaN|Infinity/)
      else expect(result.fault.message.length).toBeGreaterThan(20)
    }
  })
})
