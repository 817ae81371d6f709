import { describe, expect, it } from 'vitest'
import { blockCurve, blocksCurve } from '#core/gear/processor/curve'
import { cableCorner } from '#core/gear/loading'
import { lowCutLoss } from '#core/chain/low-cut'
import { inlinePreampOf, diBoxOf, padOf, preampOf } from '#core/checks/remedies'
import { noiseBudget } from '#core/evaluation/noise-budget'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { compareConventions } from '#core/plan/compare-conventions'
import type { Block } from '#core/gear'
import type { Session } from '#core/session'
import type { Strip } from '#core/model'
import type { ResolvedStage } from '#core/gear/stage'
import { stagesOf } from '#core/resolved/resolve-session'
import { applyChanges } from '#core/edits'
import { block } from '#core/gear'
import { readGear } from '#core/files'
import { ohms } from '#core/units'
import { chain, interfaceWith, line, lineInput, micInput, microphone, preamp, voice } from '../support/chains'

const only = (session: Session) => evaluateSession(session).strips[0] as ReturnType<typeof evaluateSession>['strips'][0]
const find = (session: Session, code: string) => only(session).findings.find((each) => each.code === code)
const curve = (raw: object) => blockCurve(block.parse(raw) as Block)

describe('static curves (handbook figures)', () => {
  it('compressor: −10 through −20, 4 : 1: −17.5', () =>
    expect(curve({ type: 'compressor', threshold: -20, ratio: 4 })(-10)).toBeCloseTo(-17.5, 9))
  it('expander: −40 through −30, 2 : 1: −50; its range holds it', () => {
    expect(curve({ type: 'expander', threshold: -30, ratio: 2 })(-40)).toBeCloseTo(-50, 9)
    expect(curve({ type: 'expander', threshold: -30, ratio: 2, range: 6 })(-40)).toBeCloseTo(-46, 9)
  })
  it('limiter: min(x, ceiling); a block that is out does nothing', () => {
    expect(curve({ type: 'limiter', ceiling: -2 })(3)).toBe(-2)
    expect(blocksCurve([block.parse({ type: 'limiter', ceiling: -2, on: false }) as Block])).toBeUndefined()
  })
  it('a cable: 250 kΩ and 600 pF: 1.06 kHz', () => expect(cableCorner(ohms(250_000), 600)).toBeCloseTo(1061, 0))
  it('a low cut of 80 Hz, 12 dB/oct (Butterworth): 3.0 dB at 80, 12.3 at 40, 24.1 at 20 Hz', () => {
    expect(lowCutLoss(80, 12, 80)).toBeCloseTo(3.01, 2)
    expect(lowCutLoss(80, 12, 40)).toBeCloseTo(12.3, 1)
    expect(lowCutLoss(80, 12, 20)).toBeCloseTo(24.1, 1)
  })
})

describe('clipping on the way', () => {
  const hot = (more: object = {}) =>
    chain([
      { gear: line({ level: 4, maxOutput: 30 }) },
      { gear: preamp({ gainMin: 0, maxOutput: 20 }), settings: { gain: 20 }, ...more },
      { gear: { kind: 'fader', specs: { gainMin: -60, gainMax: 10 } }, settings: { gain: -30 } },
      { gear: interfaceWith(lineInput()), port: 'in1', settings: { gain: 0 } },
    ])
  it('is told at its stage, is not fixed by a later fader, and is carried to the file', () => {
    const { points } = only(hot())
    expect(points.map((each) => each.clipped)).toEqual([false, true, false, false])
    expect(points.map((each) => each.carriesClipping?.stage ?? null)).toEqual([null, null, 's1', 's1'])
    // Peak passed on: the ceiling of +20, then −30.
    expect(points[2]?.peak).toBeCloseTo(-10, 6)
    const found = find(hot(), 'overdriven')
    expect(found?.severity).toBe('stop')
    expect(found?.message).toContain('does not show it')
    expect(found?.changes?.[0]).toMatchObject({ stage: 's1', setting: 'gain' })
  })
  it('doing what it advises fixes it', () => {
    const fixed = applyChanges(hot(), find(hot(), 'overdriven')?.changes ?? [])
    expect(find(fixed, 'overdriven')).toBeUndefined()
  })
  it('driven on purpose it is a note, and still marked', () => {
    const session = hot({ driven: true })
    expect(find(session, 'overdriven')).toBeUndefined()
    expect(find(session, 'driven')?.severity).toBe('note')
    expect(only(session).points[3]?.carriesClipping).toEqual({ strip: 's', stage: 's1' })
  })
  it('the input’s limit falls as the gain rises', () => {
    const at = (gain: number) =>
      only(
        chain([{ gear: line({ level: -40 }) }, { gear: preamp({ maxInput: 10, maxOutput: 40 }), settings: { gain } }]),
      ).points[1]?.headroom ?? 0
    expect(at(30) - at(40)).toBeCloseTo(10, 9)
    // 10 dBu at 0 dB; at 30 dB −20 dBu. In: −40 − 0.42 of loading, +9 of crest.
    expect(at(30)).toBeCloseTo(-20 - (-40 - 20 * Math.log10(1.05) + 12 - 3.0103), 3)
  })
})

describe('joints', () => {
  const xlr = { connector: 'xlr', balance: 'balanced' }
  const two = (out: object, input: object) =>
    chain([
      { gear: line({}, { plugs: { out } }) },
      { gear: interfaceWith(lineInput({}, { plug: input })), port: 'in1' },
    ])
  it('one leg of a balanced output: 6.02 dB less; an impedance-balanced one loses nothing', () => {
    const level = (balance: string) => only(two({ balance }, { balance: 'one-leg' })).points[1]?.average ?? 0
    expect(level('impedance-balanced') - level('balanced')).toBeCloseTo(6.02, 2)
    expect(find(two({ balance: 'balanced' }, { balance: 'one-leg' }), 'unbalanced')?.message).toContain('6.0 dB')
  })
  it('a plug that does not fit is said', () => {
    expect(find(two(xlr, { connector: 'jack' }), 'connector')).toBeDefined()
    expect(find(two(xlr, { connector: 'combo' }), 'connector')).toBeUndefined()
  })
  it('two preamps in a row: into the line input instead', () => {
    const session = chain([
      { gear: voice() },
      { gear: microphone() },
      { gear: preamp(), settings: { gain: 30 } },
      { gear: interfaceWith(micInput(), lineInput()), port: 'in1' },
    ])
    const found = find(session, 'double-preamp')
    expect(found?.changes?.[0]).toEqual({ do: 'port', strip: 's', stage: 's3', port: 'in2' })
    expect(find(applyChanges(session, found?.changes ?? []), 'double-preamp')).toBeUndefined()
  })
  it('the microphone channel of a desk is a preamp as well', () => {
    const session = chain([
      { gear: voice() },
      { gear: microphone() },
      {
        gear: {
          kind: 'desk-channel',
          input: 'mic',
          specs: { gainMin: 0, gainMax: 60, ein: -127, outputImpedance: 75 },
        },
        settings: { gain: 30 },
      },
      { gear: interfaceWith(micInput()), port: 'in1' },
    ])
    expect(find(session, 'double-preamp')?.message).toContain('second preamp')
    expect(find(session, 'line-into-mic')).toBeUndefined()
  })
  it('microphone level into a line input: a microphone input, or a preamp between', () => {
    const session = chain([
      { gear: voice() },
      { gear: microphone() },
      { gear: interfaceWith(lineInput()), port: 'in1' },
    ])
    const fixed = applyChanges(session, find(session, 'mic-into-line')?.changes ?? [])
    expect(fixed.strips[0]?.stages.map((stage) => fixed.gear.find((item) => item.id === stage.gear)?.kind)).toEqual([
      'sound-source',
      'microphone',
      'preamp',
      'interface',
    ])
    expect(find(fixed, 'mic-into-line')).toBeUndefined()
  })
  it('line level into an instrument input, with a free microphone input: a DI box and that', () => {
    const session = chain([
      { gear: line() },
      { gear: interfaceWith({ ...lineInput(), type: 'instrument' }, micInput()), port: 'in1' },
    ])
    const fixed = applyChanges(session, find(session, 'line-into-instrument')?.changes ?? [])
    expect(fixed.strips[0]?.stages.at(-1)?.port).toBe('in2')
    expect(fixed.gear.map((item) => item.kind)).toContain('di-box')
    expect(find(fixed, 'line-into-instrument')).toBeUndefined()
    expect(find(fixed, 'line-into-mic')).toBeUndefined()
  })
  it('a passive pickup into 10 kΩ is a stop that names the loss', () => {
    const session = chain([
      {
        gear: { kind: 'electric-source', output: 'passive-pickup', specs: { level: -20, crest: 15, impedance: 7000 } },
      },
      {
        gear: interfaceWith(lineInput({ impedance: 10_000 }), { ...lineInput({ impedance: 1e6 }), type: 'instrument' }),
        port: 'in1',
        settings: { cable: 6 },
      },
    ])
    const found = find(session, 'loading')
    expect(found?.severity).toBe('stop')
    expect(found?.message).toContain('4.6 dB') // 7 kΩ into 10 kΩ: −4.61 dB
    // What lies at 38 kHz, 1/(2π · 7 kΩ · 600 pF), is heard by nobody and not said.
    expect(found?.message).not.toContain('kHz cut')
    expect(find(applyChanges(session, found?.changes ?? []), 'loading')).toBeUndefined()
  })
  it('48 V comes from the first active device, passes no jack, and no inline preamp', () => {
    const condenser = microphone({ selfNoise: 14 }, { principle: 'condenser', phantom: 'needed', plugs: { out: xlr } })
    const through = (...between: Parameters<typeof chain>[0]) =>
      chain([
        { gear: voice() },
        { gear: condenser },
        ...between,
        {
          gear: interfaceWith(micInput({}, { plug: { connector: 'combo' } })),
          port: 'in1',
          settings: { phantom: true },
        },
      ])
    expect(find(through(), 'phantom-missing')).toBeUndefined()
    expect(find(through({ gear: { kind: 'pad', specs: { loss: 20 } } }), 'phantom-missing')).toBeUndefined()
    expect(find(through({ gear: preamp(), settings: { gain: 10, phantom: false } }), 'phantom-missing')?.stage).toBe(
      's2',
    )
    expect(
      find(through({ gear: { kind: 'booster', specs: { gain: 20, ein: -128 } } }), 'phantom-missing')?.action,
    ).toContain('inline preamp uses its 48 V')
    const jack = chain([
      { gear: voice() },
      { gear: condenser },
      { gear: interfaceWith(micInput({}, { plug: { connector: 'jack' } })), port: 'in1', settings: { phantom: true } },
    ])
    expect(find(jack, 'phantom-missing')?.action).toContain('never through a jack')
  })
  it('two strips on one input are a stop', () => {
    const session = chain([{ gear: line() }, { gear: interfaceWith(lineInput()), port: 'in1' }])
    const [strip] = session.strips
    const twice = {
      ...session,
      strips: [
        ...session.strips,
        {
          ...strip,
          id: 't',
          name: 'Other',
          stages: (strip?.stages ?? []).map((stage) => ({ ...stage, id: `${stage.id}t` })),
        },
      ],
    } as Session
    expect(find(twice, 'input-shared')?.severity).toBe('stop')
  })
  it('at 96 kHz an optical link carries four channels', () => {
    const digital = Array.from({ length: 8 }, () => ({ type: 'digital' }))
    const second = (port: string, sampleRate: number) =>
      chain(
        [
          { gear: line() },
          { gear: interfaceWith(lineInput()), port: 'in1' },
          { gear: { kind: 'link', medium: 'optical', specs: {} } },
          { gear: interfaceWith(...digital), port },
        ],
        { system: { sampleRate } },
      )
    expect(find(second('in5', 48_000), 'link-capacity')).toBeUndefined()
    expect(find(second('in5', 96_000), 'link-capacity')?.severity).toBe('stop')
    expect(find(second('in4', 96_000), 'link-capacity')).toBeUndefined()
  })
})

describe('the devices that fix', () => {
  const session = chain([{ gear: line() }, { gear: interfaceWith(lineInput()), port: 'in1' }])
  const [first, last] = stagesOf(session, session.strips[0] as Strip) as [ResolvedStage, ResolvedStage]
  it.each([
    ['pad', padOf(session, 20, first, last)],
    ['inline preamp', inlinePreampOf(session, 20)],
    ['DI box', diBoxOf(session)],
    ['preamp', preampOf(session)],
  ])('the %s is what a file would hold, complete', (_, gear) => {
    const reading = readGear(JSON.parse(JSON.stringify(gear)))
    expect(reading.ok && reading.gear).toEqual(gear)
  })
})

describe('what it costs and what would help', () => {
  const session = chain(
    [
      { gear: voice() },
      { gear: microphone(), settings: {} },
      { gear: preamp({ gainMax: 75 }), settings: { gain: 40 } },
      { gear: interfaceWith(lineInput()), port: 'in1', settings: { gain: 0 } },
    ],
    { room: { ambient: 20 } },
  )
  it('the budget refers every noise to the air: the room is the room', () => {
    const { lines, total } = noiseBudget(session, 's')
    expect(lines.find((each) => each.name === 'room')?.inAir).toBeCloseTo(20, 9)
    expect(10 * Math.log10(lines.reduce((sum, each) => sum + 10 ** (each.level / 10), 0))).toBeCloseTo(total ?? 0, 9)
  })
  it('half the distance gains 6.02 dB against everything; a preamp 3 dB better what its share allows', () => {
    const { lines, helps } = noiseBudget(session, 's')
    expect(helps.find((each) => each.words.startsWith('half the distance'))?.snr).toBeCloseTo(6.02, 2)
    const share = lines.find((each) => each.name === 'preamp')?.share ?? 0
    expect(helps.find((each) => each.words.startsWith('a preamp'))?.snr).toBeCloseTo(
      -10 * Math.log10(1 - share * (1 - 10 ** -0.3)),
      2,
    )
  })
  it('every school on this chain reads what it wants, or says that it cannot', () => {
    const rows = compareConventions(session, 's')
    expect(rows).toHaveLength(8)
    expect(rows.find((each) => each.convention === 'peaks-18-12')?.peak).toBeCloseTo(-15, 0)
    expect(rows.find((each) => each.convention === 'speech-average')?.average).toBeCloseTo(-11, 0)
    expect(Math.min(...rows.map((each) => each.headroomCost))).toBe(0)
    expect(Math.min(...rows.map((each) => each.snrCost ?? 9))).toBe(0)
  })
})
