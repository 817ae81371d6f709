import { describe, expect, it } from 'vitest'
import { shelfGear } from '#demo/shelf'
import { templates, templateBundle } from '#demo/templates'
import { demoSession } from '#demo/index'
import type { Gear } from '#core/session'
import {
  addBundle,
  applyChanges,
  blankGear,
  copyStrip,
  gearDifferences,
  gearFromTable,
  gearKinds,
  gearToTable,
  pairStrips,
  readGearFile,
  readSession,
  removeStrip,
  writeGearFile,
  writeSession,
} from '#core/session'

describe('the shelf’s files', () => {
  it('ships at least 25 items of every kind, marked as invented', () => {
    expect(shelfGear().length).toBeGreaterThanOrEqual(25)
    expect(new Set(shelfGear().map((item) => item.kind))).toEqual(new Set(gearKinds))
    for (const item of shelfGear()) expect(item.origin).toContain('Invented')
  })
  it('JSON comes back the same, byte for byte', () => {
    const text = writeGearFile(shelfGear())
    const reading = readGearFile(JSON.parse(text))
    expect(reading.ok && writeGearFile(reading.items)).toBe(text)
  })
  it('a table comes back the same, measured values and knob marks too', () => {
    const items = shelfGear().map((item) =>
      item.id === 'grebe'
        ? ({
            ...item,
            measured: { ein: { value: -126.2, on: '2026-11-02', method: '150 Ω, gain 60', spread: 0.2 } },
          } as Gear)
        : item,
    )
    const reading = gearFromTable(gearToTable(items))
    expect(reading.ok && writeGearFile(reading.items)).toBe(writeGearFile(items))
  })
  it('cells that a spreadsheet would run are made safe, and come back', () => {
    const evil = { ...shelfGear()[0], name: '=1+1', origin: "'quoted" } as Gear
    const [header = [], row = []] = gearToTable([evil])
    expect(row[header.indexOf('name')]).toBe("'=1+1")
    for (const cell of gearToTable(shelfGear()).flat()) expect(cell).not.toMatch(/^[=+\-@]/)
    const reading = gearFromTable([header, row])
    expect(reading.ok && reading.items[0]).toEqual(evil)
  })
  it.each([
    ['no header', [['a', 'b']], 'row 1'],
    ['an unknown column', [['id', 'kind', 'loudness']], 'row 1'],
    [
      'a word for a number',
      [
        ['id', 'kind', 'name', 'loss'],
        ['p', 'pad', 'P', 'much'],
      ],
      'row 2.specs.loss',
    ],
    [
      'a port without its unit',
      [
        ['id', 'kind', 'name', 'port'],
        ['u', 'interface', 'U', 'input:a'],
      ],
      'row 2',
    ],
    [
      'broken JSON in a cell',
      [
        ['id', 'kind', 'name', 'measured'],
        ['p', 'pad', 'P', '{'],
      ],
      'row 2',
    ],
  ])('%s is refused with its row', (_, table, path) => {
    const reading = gearFromTable(table)
    expect(reading.ok ? null : reading.faults[0]?.path).toBe(path)
  })
  it.each([
    ['another format', { format: 'x' }, 'format'],
    ['version 99', { format: 'remetra.gear', version: 99 }, 'version'],
    ['no list', { format: 'remetra.gear', version: 1, items: 3 }, 'items'],
    [
      'a faulty item',
      {
        format: 'remetra.gear',
        version: 1,
        items: [{ id: 'p', kind: 'pad', name: 'P', specs: { loss: Number('1e309') } }],
      },
      'items[0].specs.loss',
    ],
    [
      'an id twice',
      { format: 'remetra.gear', version: 1, items: [blankGear('pad', 'p', 'P'), blankGear('pad', 'p', 'Q')] },
      'items[1].id',
    ],
    [
      'a range upside down',
      {
        format: 'remetra.gear',
        version: 1,
        items: [{ ...blankGear('preamp', 'p', 'P'), specs: { gainMin: 50, gainMax: 10, ein: -127 } }],
      },
      'items[0].specs.gainMax',
    ],
  ])('%s: where and what', (_, raw, path) => {
    const reading = readGearFile(raw)
    expect(reading.ok ? null : reading.faults[0]?.path).toBe(path)
  })
  it.each(gearKinds)('a new %s is valid as it comes', (kind) => {
    expect(blankGear(kind, 'new', 'New').kind).toBe(kind)
  })
  it('differences name the path and both values', () => {
    const grebe = shelfGear().find((item) => item.id === 'grebe') as Gear
    const mine = {
      ...grebe,
      id: 'other',
      shelf: 'grebe',
      specs: { ...(grebe as { specs: object }).specs, ein: -120 },
    } as Gear
    expect(gearDifferences(mine, grebe)).toEqual([{ path: 'specs.ein', from: '-120', to: '-128' }])
  })
})

describe('strips come and go', () => {
  const demo = demoSession()
  it('a template twice shares its gear and gets ids of its own', () => {
    const bundle = templateBundle(templates[0] as never)
    const twice = addBundle(addBundle(demo, bundle), bundle)
    expect(readSession(JSON.parse(writeSession(twice))).ok).toBe(true)
    expect(twice.strips).toHaveLength(demo.strips.length + 2)
    // The demo has a sandpiper and a saltmarsh of its own, with other figures: those stay beside the template's.
    expect(twice.gear.length).toBe(addBundle(demo, bundle).gear.length)
  })
  it('a copy of a strip is a strip of its own', () => {
    const copied = copyStrip(demo, 'narrator')
    expect(copied.gear).toHaveLength(demo.gear.length)
    expect(copied.strips.at(-1)?.name).toBe('Narrator (copy)')
    expect(readSession(JSON.parse(writeSession(copied))).ok).toBe(true)
  })
  it('removing a strip takes along the gear that only it used', () => {
    const left = removeStrip(demo, 'harmonium')
    expect(left.gear.map((item) => item.id)).not.toContain('old-punt')
    expect(left.gear.map((item) => item.id)).toContain('saltmarsh')
    expect(removeStrip(removeStrip(left, 'cello'), 'narrator').strips).toHaveLength(1)
  })
  it('stages are inserted, moved, replaced and removed; the order is still checked', () => {
    const pad = blankGear('pad', 'pad', 'Pad')
    const padded = applyChanges(demo, [{ do: 'insert', strip: 'narrator', index: 2, gear: pad }])
    expect(padded.strips[0]?.stages.map((stage) => stage.gear)).toEqual([
      'narrator-voice',
      'sandpiper',
      'pad',
      'saltmarsh',
    ])
    expect(readSession(JSON.parse(writeSession(padded))).ok).toBe(true)
    const stage = padded.strips[0]?.stages[2]?.id ?? ''
    const early = readSession(
      JSON.parse(JSON.stringify(applyChanges(padded, [{ do: 'move', strip: 'narrator', stage, to: 1 }]))),
    )
    expect(early.ok ? [] : early.faults.map((fault) => fault.code)).toContain('order')
    const gone = applyChanges(padded, [{ do: 'remove', strip: 'narrator', stage }])
    expect(gone.gear.map((item) => item.id)).not.toContain('pad')
    const boosted = applyChanges(padded, [
      { do: 'replace', strip: 'narrator', stage, gear: blankGear('booster', 'lift', 'Lift') },
    ])
    expect(boosted.strips[0]?.stages[2]).toMatchObject({ id: stage, gear: 'lift' })
  })
  it('a strip has one partner; a pair that names no strip is a fault', () => {
    const paired = pairStrips(pairStrips(demo, 'narrator', 'cello'), 'cello', 'harmonium')
    expect(paired.pairs).toEqual([{ left: 'cello', right: 'harmonium', monitoring: 'panned' }])
    const reading = readSession({ ...JSON.parse(writeSession(demo)), pairs: [{ left: 'narrator', right: 'nobody' }] })
    expect(reading.ok ? null : reading.faults[0]?.path).toBe('pairs[0].right')
  })
})
