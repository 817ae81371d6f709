import { describe, expect, it } from 'vitest'
import { shelfGear } from '#demo/shelf'
import { templates, templateBundle } from '#demo/templates'
import { demoSession } from '#demo/index'
import type { AudioInterface, Gear } from '#core/gear'
import {
  addBundle,
  alsoIn,
  editStrip,
  withOwnBox,
  applyChanges,
  blankGear,
  copyStrip,
  gearDifferences,
  pairStrips,
  removeStrip,
} from '#core/edits'
import { gearFromTable, gearToTable, readGearFile, readSession, writeGearFile, writeSession } from '#core/files'
import { gearKinds } from '#core/gear'
import { readGearCsv, writeGearCsv } from '~/features/gear/gear-csv'

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
    const text = writeGearCsv([evil, ...shelfGear().slice(1)])
    expect(text).toContain("'=1+1")
    // A negative number is a number; a text that begins like a formula is guarded.
    expect(text).not.toMatch(/(^|[,\n"])[=+@]|(^|[,\n"])-(?![\d.]+[,\r])/)
    const reading = readGearCsv(text)
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
      'an id that stands in an earlier row',
      [
        ['id', 'kind', 'name', 'loss'],
        ['p', 'pad', 'P', '20'],
        ['', '', '', ''],
        ['p', 'pad', 'Q', '10'],
      ],
      'row 4',
    ],
    [
      'properties that would override a column',
      [
        ['id', 'kind', 'name', 'loss', 'properties'],
        ['p', 'pad', 'P', '20', '{"kind":"fader"}'],
      ],
      'row 2',
    ],
    [
      'a fault of a port, with the port’s row',
      [
        ['id', 'kind', 'name', 'port', 'gainMin', 'properties'],
        ['u', 'interface', 'U', '', '', ''],
        ['u', 'interface', 'U', 'input:a', 'loud', '{"type":"line"}'],
      ],
      'row 3.specs.gainMin',
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
  it('a table in text: true row numbers past blank lines, and broken quotes are told', () => {
    const paths = (text: string) => {
      const reading = readGearCsv(text)
      return reading.ok ? [] : reading.faults.map((fault) => fault.path)
    }
    expect(paths('id,kind,name,loss\r\n\r\n\r\np,pad,P,much\r\n')).toEqual(['row 4.specs.loss'])
    expect(paths('id,kind,name,loss\np,pad,P,20\nq,pad,"Q,20\n')).toContain('row 3')
    expect(paths('id,kind,name,loss\r\np,pad,P,20\r\n')).toEqual([])
    const items = shelfGear()
    const again = readGearCsv(writeGearCsv(items))
    expect(again.ok && writeGearFile(again.items)).toBe(writeGearFile(items))
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
    expect(gearDifferences(mine, grebe)).toEqual([
      { path: 'specs.ein', words: 'EIN', from: '−120 dBu', to: '−128 dBu' },
    ])
  })
  it('and says it in words: of an input, of a measurement, of a switch', () => {
    const unit = shelfGear().find((item) => item.id === 'saltmarsh') as AudioInterface
    const inputs = unit.inputs.map((input, i) =>
      i === 1 && input.type !== 'digital'
        ? { ...input, phantomBank: 'C', measured: { fullScale: { value: 14.6 } } }
        : input,
    ) as AudioInterface['inputs']
    expect(gearDifferences(unit, { ...unit, inputs }).map(({ words }) => words)).toEqual([
      'Input 2: Maximum input level, measured value',
      'Input 2: Phantom bank',
    ])
  })
})

describe('strips come and go', () => {
  const demo = demoSession()
  it('a template twice: devices, names, ids and inputs of its own, and one unit', () => {
    const bundle = templateBundle(templates[0] as never)
    const twice = addBundle(addBundle(demo, bundle), bundle)
    expect(readSession(JSON.parse(writeSession(twice))).ok).toBe(true)
    expect(twice.strips).toHaveLength(demo.strips.length + 2)
    const [first, second] = twice.strips.slice(-2)
    expect([first?.name, second?.name]).toEqual(['Voice', 'Voice 2'])
    const boxes = [first, second].map((strip) => strip?.stages.map((stage) => stage.gear) ?? [])
    // The unit is one, by two inputs; source and microphone are two.
    expect(boxes[0]?.[2]).toBe(boxes[1]?.[2])
    expect(first?.stages[2]?.port).not.toBe(second?.stages[2]?.port)
    expect(boxes[0]?.[0]).not.toBe(boxes[1]?.[0])
    expect(boxes[0]?.[1]).not.toBe(boxes[1]?.[1])
  })
  it('a unit without a free input is no place for another strip: it gets a unit of its own', () => {
    const [template] = templates.filter(({ id }) => id === 'channel-strip')
    const bundle = templateBundle(template as never)
    let session = demo
    for (let n = 0; n < 6; n++) session = addBundle(session, bundle)
    const places = session.strips.slice(demo.strips.length).map((strip) => {
      const { gear, port } = strip.stages.at(-1) ?? {}
      return `${gear} ${port}`
    })
    expect(new Set(places).size).toBe(6)
    expect(new Set(places.map((each) => each.split(' ')[0])).size).toBeGreaterThan(1)
  })
  it('a copy of a strip is a strip of its own', () => {
    const copied = copyStrip(demo, 'narrator')
    // A source and a microphone more; the unit is the same, by a free input.
    expect(copied.gear).toHaveLength(demo.gear.length + 2)
    expect(copied.strips.at(-1)?.name).toBe('Narrator 2')
    const ports = copied.strips.map((strip) => strip.stages.at(-1)).filter((stage) => stage?.gear === 'saltmarsh')
    expect(new Set(ports.map((stage) => stage?.port)).size).toBe(ports.length)
    expect(readSession(JSON.parse(writeSession(copied))).ok).toBe(true)
  })
  it('an edit that is meant for one strip leaves the device of the others as it was', () => {
    const shared = editStrip(copyStrip(demo, 'narrator'), 'narrator-2', (strip) => ({
      ...strip,
      stages: strip.stages.map((stage, i) => (i === 1 ? { ...stage, gear: 'sandpiper' } : stage)),
    }))
    expect(alsoIn(shared, 'sandpiper', 'narrator').map((strip) => strip.id)).toContain('narrator-2')
    const before = shared.gear.find((item) => item.id === 'sandpiper') as Gear
    const edited = {
      ...shared,
      gear: shared.gear.map((item) => (item.id === 'sandpiper' ? { ...item, name: 'Mine' } : item)),
    }
    const own = withOwnBox(edited, 'narrator-2', shared.strips.at(-1)?.stages[1]?.id ?? '', before)
    expect(own.gear.find((item) => item.id === 'sandpiper')).toEqual(before)
    expect(own.gear.find((item) => item.id === own.strips.at(-1)?.stages[1]?.gear)?.name).toBe('Mine')
    expect(readSession(JSON.parse(writeSession(own))).ok).toBe(true)
  })
  it('removing a strip takes along the gear that only it used', () => {
    const left = removeStrip(demo, 'harmonium')
    expect(left.gear.map((item) => item.id)).not.toContain('old-punt')
    expect(left.gear.map((item) => item.id)).toContain('saltmarsh')
    const bare = ['cello', 'narrator', 'pieces', 'music', 'stream', 'preview', 'tide'].reduce(removeStrip, left)
    expect(bare.strips.map(({ id }) => id)).toEqual(['tide'])
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
