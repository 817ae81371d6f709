import { describe, expect, it } from 'vitest'
import { blankGear, withSheetFigures, presentFigure } from '#core/edits'
import type { Candidate } from '#core/files'
import type { SheetDevice } from '#core/files/data-sheet/fitting-device'
import { cellSign, fittingDevice, linesOfPage, linesOfText, readDataSheet, readGear, sheetTargets } from '#core/files'
import type { AudioInterface, Gear } from '#core/gear'
import { INVENTED_SHEETS } from '../support/data-sheets'
import { deviceOf, judged, linesOf, readOut } from '../support/read-invented'

/** What one line gives by name, beside what stays open and why other lines are left. */
type Found = Record<string, unknown> & { open: string[]; left: string[] }

describe('invented data sheets in many layouts, in four languages', () => {
  const written = INVENTED_SHEETS.filter(({ as }) => as !== 'html')
  it('of all figures at least 95 % are read right, and none is wrong without a mark', () => {
    const results = written.map((sheet) => judged(sheet, readOut(sheet, linesOf(sheet))))
    const sum = (key: 'right' | 'all' | 'wrong') => results.reduce((total, each) => total + each[key], 0)
    const told = results.flatMap(({ told: each }) => each).join('\n')
    expect(sum('wrong'), told).toBe(0)
    expect(sum('right') / sum('all'), told).toBeGreaterThanOrEqual(0.95)
    expect(sum('all')).toBeGreaterThan(150)
  })
  it.each(written.map((sheet) => [sheet.name, sheet] as const))(
    '%s: every line comes out, found or left with why',
    (_, sheet) => {
      const lines = linesOf(sheet)
      const { figures, left } = readOut(sheet, lines).sheet
      const told = new Set([
        ...figures.flatMap(({ candidates }) => candidates.flatMap(({ line, also = [] }) => [line, ...also])),
        ...left.map(({ line }) => line),
      ])
      expect(lines.filter((line) => !told.has(line) && line.cells.some((cell) => /\d/.test(cell)))).toEqual([])
      expect(left.every(({ why }) => why.endsWith('.'))).toBe(true)
    },
  )
})

describe('a line of a data sheet', () => {
  const found = (of: 'preamp' | 'microphone' | 'interface', text: string): Found => {
    const { values, open, sheet } = readOut({ of }, linesOfText(text))
    return { ...values[''], ...values['in mic'], open, left: sheet.left.map(({ why }) => why) }
  }
  it.each([
    ['EIN −128 dBu A-weighted, 150 Ω', { ein: -128, einWeighting: 'A', einSource: 150 }],
    ['Equivalent input noise: -129.5 dBu (A), shorted', { ein: -129.5, einWeighting: 'A', einSource: 0 }],
    ['E.I.N. -126 dBu, 20 Hz-20 kHz unweighted, 150 ohms', { ein: -126, einWeighting: 'Z', einSource: 150 }],
    ['max input +16 dBu @ min gain', { fullScale: 16 }],
    ['0 dBFS = +18 dBu', { fullScale: 18 }],
    ['Maximum input level: +10 dBV', { fullScale: 12.218487496 }],
    ['gain range 56 dB', { gainMax: 56 }],
    ['Gain range: 10 dB to 65 dB', { gainMin: 10, gainMax: 65 }],
    ['Gain range +10…+65 dB', { gainMin: 10, gainMax: 65 }],
    ['Gain range\t+8 … +68 dB', { gainMin: 8, gainMax: 68 }],
    ['Gain range ........ 56 dB', { gainMax: 56 }],
    ['Max gain 62 dB; gain steps of 1 dB', { gainMax: 62, gainStep: 1 }],
    ['Dynamic range 115 dB (A)', { dynamicRange: 115 }],
    ['Input impedance 2.4 kΩ', { impedance: 2400 }],
    ['Input impedance 1k5', { impedance: 1500 }],
    ['Pad −20 dB', { pad: 20 }],
  ])('of an interface: “%s”', (text, expected) => {
    const { open, left, ...values } = found('interface', text)
    expect(values).toEqual(expected)
    expect([open, left]).toEqual([[], []])
  })
  it.each([
    ['Sensitivity: −36 dBV/Pa', { sensitivity: 15.848931925 }],
    ['Sensitivity −33 dB re 1V/Pa', { sensitivity: 22.387211386 }],
    ['Max. sound pressure 140 dB', { maxSpl: 140 }],
    ['Low cut 80 Hz', { lowCut: 80 }],
    ['S/N ratio 80 dB (A), 1 Pa', { selfNoise: 14 }],
  ])('of a microphone: “%s”', (text, expected) => expect(found('microphone', text)).toMatchObject(expected))

  it.each([
    ['THD+N 0.002 %', /computed/],
    ['EIN to be announced', /no number/],
    ['Gain range 56 dB | 60 dB', /fits/],
    ['colour: anthracite 2', /called that/],
    ['Phantom power 48 V', /48 V is set/],
  ])('left with why: “%s”', (text, why) => expect(found('interface', text).left).toEqual([expect.stringMatching(why)]))

  const refused = (of: 'preamp' | 'microphone' | 'interface', text: string) =>
    readOut({ of }, linesOfText(text)).sheet.figures.flatMap(({ candidates, chosen }) =>
      candidates.map(({ refused: why }) => [chosen, why ?? '']),
    )
  it('out of range, it says which and why, and is not taken', () => {
    expect(refused('preamp', 'EIN 128 dBu')).toEqual([
      [null, expect.stringMatching(/128 is out of range.*−160 to −40 dBu/)],
    ])
  })
  it('an EIN below the thermal noise of its source (−132.97 dBu A-weighted at 150 Ω) cannot be, shorted it can', () => {
    expect(refused('preamp', 'EIN −134 dBu (A), 150 Ω')).toEqual([
      [null, expect.stringMatching(/thermal noise of its source, −133 dBu/)],
    ])
    expect(refused('preamp', 'EIN −134 dBu (A), shorted')).toEqual([[0, '']])
    expect(refused('preamp', 'EIN −133 dBu (A), 150 Ω')).toEqual([[0, '']])
  })
  it('a self-noise that is weighted otherwise is no dBA', () => {
    expect(refused('microphone', 'Equivalent noise level 25 dB (CCIR 468)')).toEqual([
      [null, expect.stringContaining('468')],
    ])
  })
  it('two that differ are open; two that say the same are one', () => {
    expect(found('preamp', 'Max output +24 dBu\nMax output +26 dBu').open).toEqual(['maxOutput'])
    expect(found('microphone', 'Sensitivity 15 mV/Pa\nSensitivity −36.5 dBV/Pa').open).toEqual([])
  })
  it('the maximum input at maximum gain gives way to that at minimum gain', () => {
    const read = found('preamp', 'Max input level −32 dBu at max gain\nMax input level +18 dBu at min gain')
    expect(read).toMatchObject({ maxInput: 18, open: [] })
  })
  it('what is in brackets, or behind “at”, is a condition and not the figure', () => {
    expect(found('microphone', 'Sensitivity (0 dB = 1 V/Pa) 15 mV/Pa')).toMatchObject({ sensitivity: 15, open: [] })
    expect(found('preamp', 'Max output level at 0 dBV reference, +24 dBu').maxOutput).toBe(24)
  })
  it('a figure whose ports are named stands before one that is of any', () => {
    const read = found('interface', 'Maximum input level +20 dBu\nMic maximum input level +14 dBu')
    expect(read).toMatchObject({ fullScale: 14, open: [] })
  })
  it('ports are named before a figure, or in brackets behind it', () => {
    const inputs = (text: string) => readOut({ of: 'interface' }, linesOfText(text)).values
    expect(inputs('Maximum input level +19 dBu (line)')).toEqual({ 'in line': { fullScale: 19 } })
    expect(inputs('Maximum input level +19 dBu (line), +12 dBu (mic)')).toEqual({
      'in line': { fullScale: 19 },
      'in mic': { fullScale: 12 },
    })
    expect(inputs('Mic maximum input level +12 dBu (balanced)')).toEqual({ 'in mic': { fullScale: 12 } })
  })
  it('so does one with the pad in', () => {
    const read = found('preamp', 'Max input level +38 dBu, pad in\nMax input level +18 dBu')
    expect(read).toMatchObject({ maxInput: 18, open: [] })
    expect(found('preamp', 'Max input level +38 dBu with pad').maxInput).toBe(38)
  })
  it('a tolerance goes with its figure', () => {
    const { sheet } = readOut(
      { of: 'microphone' },
      linesOfText('Sensitivity 15 mV/Pa ± 2 dB\nImpedance 200 Ω ± 20 %\nSelf-noise 14 dBA ±1 dB'),
    )
    expect(sheet.figures.map(({ key, candidates: [first] }) => [key, first?.tolerance])).toEqual([
      ['sensitivity', { value: 2, unit: 'dB' }],
      ['impedance', { value: 20, unit: '%' }],
      ['selfNoise', 1],
    ])
  })
  it('of a unit, a figure whose ports are not named goes to those in hand, and says so', () => {
    const device = deviceOf({ of: 'interface' })
    const read = (port?: string) =>
      readDataSheet(linesOfText('Maximum input level +18 dBu'), sheetTargets(device, port)).figures
    expect(read().map(({ target }) => target)).toEqual(['in mic'])
    expect(read('in2').map(({ target }) => target)).toEqual(['in line'])
    expect(read('in2')[0]?.candidates[0]?.notes).toEqual([
      'The sheet does not say which ports: taken for the line inputs.',
    ])
  })
  it('a figure is shown as it is printed, also one whose name stood in the line above', () => {
    const printed = (text: string) =>
      readOut({ of: 'preamp' }, linesOfText(text)).sheet.figures[0]?.candidates[0]?.printed
    expect(printed('Max Output Level: +24 dBu')).toBe('+24 dBu')
    expect(printed('Max Output Level\n+24 dBu')).toBe('+24 dBu')
    expect(printed('Gain range 900 dB')).toBe('900 dB')
  })
  it('a heading may number its ports', () => {
    const { sheet } = readOut({ of: 'interface' }, linesOfText('Line inputs (5–8)\nMaximum input level +22 dBu'))
    expect(sheet.figures.map(({ target }) => target)).toEqual(['in line'])
    expect(sheet.left.map(({ why }) => why)).toEqual(['Read as a heading of the lines below it.'])
  })
  it('any text is answered and none throws; what is taken is always in its field’s range', () => {
    let seed = 77
    const random = (n: number) => (seed = (seed * 48271) % 2147483647) % n
    const words = [
      'EIN',
      'max input',
      'gain range',
      'dB',
      'dBu',
      '–',
      '-128',
      '+16',
      '1e999',
      '9'.repeat(40),
      '±',
      '(',
      ')',
      'Ω',
      'k',
      '1,000',
      'Sensitivity',
      'Mic',
      '|',
      '\t',
    ]
    const device = deviceOf({ of: 'interface' })
    // Ends of a range that stand the wrong way round are refused in words where they are taken.
    for (let i = 0; i < 800; i++) {
      const text = Array.from({ length: random(9) }, () => words[random(words.length)]).join(random(2) ? ' ' : '')
      const { figures } = readDataSheet(linesOfText(text), sheetTargets(device))
      const taken = figures.flatMap(({ candidates, chosen }): Candidate[] =>
        chosen === null ? [] : candidates.slice(chosen, chosen + 1),
      )
      const reading = readGear(JSON.parse(JSON.stringify(withSheetFigures(device, taken))))
      if (!reading.ok)
        expect
          .soft(
            reading.faults.map(({ code }) => code).filter((code) => code !== 'range'),
            text,
          )
          .toEqual([])
    }
  })
})

describe('figures taken into a device', () => {
  const taken = (gear: Gear, text: string) => {
    const { figures } = readDataSheet(linesOfText(text), sheetTargets(gear))
    return withSheetFigures(
      gear,
      figures.flatMap(({ candidates, chosen }) => (chosen === null ? [] : candidates.slice(chosen, chosen + 1))),
    )
  }
  it('those of ports go to every port of the sort, and are no longer assumed', () => {
    const unit = deviceOf({ of: 'interface' }) as AudioInterface
    const [first] = unit.inputs
    const two = {
      ...unit,
      inputs: [{ ...first, assumed: ['ein'] }, { ...first, id: 'in9' }, ...unit.inputs.slice(1)],
    } as AudioInterface
    const { inputs } = taken(two, 'Mic EIN −128 dBu, 150 Ω') as AudioInterface
    expect(
      inputs.map((each) =>
        'specs' in each ? [each.type, each.specs.ein, each.assumed?.includes('ein') ?? false] : null,
      ),
    ).toEqual([
      ['mic', -128, false],
      ['mic', -128, false],
      ['line', -127, true],
      ['instrument', -127, true],
    ])
  })
  it('a level in dBFS makes a microphone one with a converter of its own; its pattern is taken', () => {
    const gear = taken(blankGear('microphone', 'm', 'M'), 'Sensitivity −38 dBFS at 94 dB SPL\nPolar pattern: cardioid')
    expect(gear).toMatchObject({ pattern: 'cardioid', specs: { digitalSensitivity: -38 } })
    expect(gear).not.toHaveProperty('specs.sensitivity')
  })
  it('only a microphone has a pattern to be set', () => {
    const loudspeaker = blankGear('loudspeaker', 'l', 'L')
    expect(readDataSheet(linesOfText('Polar pattern: cardioid'), sheetTargets(loudspeaker)).figures).toEqual([])
  })
  it('what it holds now is said beside it', () => {
    const gear: Gear = { ...blankGear('microphone', 'm', 'M'), assumed: ['sensitivity'] } as Gear
    expect(presentFigure(gear, 'm', 'sensitivity')).toBe('12, assumed')
    expect(presentFigure(gear, 'm', 'impedance')).toBe('150')
    expect(presentFigure(gear, 'm', 'lowCut')).toBe('–')
  })
})

describe('which of several devices a sheet is of', () => {
  const [source, microphone, preamp, unit] = (['sound-source', 'microphone', 'preamp', 'interface'] as const).map(
    (kind) => ({ gear: blankGear(kind, kind, kind) }),
  )
  const devices = [source, microphone, preamp, { ...unit, port: 'in1' }] as SheetDevice[]
  it.each([
    ['Sensitivity 1.8 mV/Pa\nOutput impedance 250 ohms', 0, 1],
    ['EIN −128 dBu A-weighted, 150 Ω\nmax output +22 dBu\ngain range 56 dB', 0, 2],
    ['max input +18 dBu @ min gain\nDynamic range 112 dB (A)', 1, 3],
    // As good for two: the one in hand keeps it.
    ['EIN −128 dBu', 3, 3],
    ['EIN −128 dBu', 2, 2],
    ['Thank you for choosing this device', 2, 2],
  ])('%s, with %d in hand: %d', (text, inHand, fits) => {
    expect(fittingDevice(linesOfText(text), devices, inHand)).toBe(fits)
  })
})

describe('lines of a page', () => {
  it('pieces at one height are a line; a gap as wide as the text is high parts cells; ligatures and raised letters belong to their word', () => {
    const at = (text: string, x: number, y: number, width: number) => ({ text, x, y, width, height: 10 })
    const pieces = [
      at('Figure', 10, 700, 30),
      at('Sensi', 10, 680, 25),
      at('tivity', 35, 680, 26),
      at('15', 120, 680, 12),
      at('mV/Pa', 135, 683, 30),
    ]
    expect(linesOfPage(pieces, 3)).toEqual([
      { cells: ['Figure'], line: 1, page: 3 },
      { cells: ['Sensitivity', '15 mV/Pa'], line: 2, page: 3 },
    ])
  })
  it('a table is told from sentences', () => {
    expect(cellSign('a;b\nc;d')).toBe(';')
    expect(cellSign('Max gain 62 dB; gain steps of 1 dB')).toBe(null)
    expect(cellSign('one\ntwo\nthree; four')).toBe(null)
  })
})
