import { describe, expect, it } from 'vitest'
import type { CauseId } from '#core/diagnosis/causes'
import { causeOf } from '#core/diagnosis/causes'
import { diagnose } from '#core/diagnosis/diagnose'
import { exchanged, seenWith } from '#core/diagnosis/late-gain'
import { keepsItsWord, fixOf } from '#core/diagnosis/fixes'
import type { SymptomId } from '#core/diagnosis/symptom'
import { SessionView } from '#core/diagnosis/view'
import type { DiagnosisView } from '#core/diagnosis/view'
import type { Session } from '#core/session'
import type { System } from '#core/model'
import { largerBuffer } from '#core/timing/larger-buffer'
import type { TimingCell } from '#core/timing/time-session'
import { chain, interfaceWith, line, lineInput, micInput, microphone, preamp, voice } from '../support/chains'

const viewOf = (session: Session) => new SessionView(session).strips[0] as DiagnosisView
const chance = (session: Session, symptom: SymptomId, cause: CauseId) =>
  diagnose(session, 's', { symptoms: [symptom], answers: {} }).causes.find(({ id }) => id === cause)?.probability ?? NaN
const evidence = (session: Session, cause: CauseId, symptom: SymptomId) =>
  causeOf(cause).evidence?.(viewOf(session), [symptom]) ?? []
const cable = (length: number) => ({ cable: length })

/** A ribbon, a preamp with much left, a noisy line box turned right up at its output, a line input. */
const hotOutput = (locked: string[] = [], level = 80, outputNoise = -68) =>
  chain([
    { gear: voice({ level }), settings: { distance: 0.3 } },
    { gear: microphone({ sensitivity: 1.5, impedance: 300 }, { principle: 'ribbon', phantom: 'harmful' }) },
    { gear: preamp({ gainMax: 70, outputNoise }), settings: { gain: 26 } },
    {
      gear: {
        kind: 'processor',
        blocks: [],
        specs: { gainMin: -20, gainMax: 20, maxInput: 24, maxOutput: 24, inputImpedance: 20_000, outputImpedance: 100 },
      },
      settings: { gain: 20 },
      locked,
    },
    { gear: interfaceWith(lineInput()), port: 'in1', settings: { gain: 0 } },
  ])

describe('late gain is judged by what a hand could set', () => {
  it('a hot output behind a preamp that has gain left: exchanging the two takes the hiss down, and is the likeliest cause', () => {
    const session = hotOutput()
    const found = exchanged(viewOf(session))
    expect(found?.quieter).toBeGreaterThan(3)
    const { causes } = diagnose(session, 's', { symptoms: ['hiss'], answers: {} })
    expect(causes[0]?.id).toBe('late-gain')
    for (const id of ['preamp-near-end', 'no-booster'] as const)
      expect(
        evidence(session, id, 'hiss').every(({ says }) => !/at its end|is at .* of /.test(says)),
        id,
      ).toBe(true)
  })
  it('its figure is what evaluating the exchange gives, the level at the end stays, and no stage loses its reserve', () => {
    const before = viewOf(hotOutput())
    const found = exchanged(before)
    const after = seenWith(before, found?.changes ?? [])
    expect(after.points.at(-1)?.average).toBeCloseTo(before.points.at(-1)?.average ?? NaN, 1)
    expect(
      after.points.every(
        ({ headroom }, i) => (headroom ?? 99) >= Math.min(10, before.points[i]?.headroom ?? 99) - 0.01,
      ),
    ).toBe(true)
    expect(found?.by).toBe(Number(found?.changes[0]?.to) - 26)
    expect(fixOf(before, 'late-gain').changes?.length).toBeGreaterThan(1)
  })
  it('a control that must not be turned is left out of it', () => {
    expect(exchanged(viewOf(hotOutput(['gain'])))).toBeNull()
  })
})

describe('hum', () => {
  const balanced = { plugs: { in: { balance: 'balanced' }, out: { balance: 'balanced' } } }
  const into = (out: string, length: number) =>
    chain([
      { gear: line({}, { plugs: { out: { balance: out } } }) },
      {
        gear: interfaceWith(lineInput({}, { plug: balanced.plugs.in })),
        port: 'in1',
        settings: { gain: 0, ...cable(length) },
      },
    ])
  it('a cable that is balanced at both ends brings no hum in by its length', () => {
    expect(chance(into('balanced', 30), 'hum', 'unbalanced-lead')).toBeLessThan(0.05)
    expect(chance(into('balanced', 30), 'hum', 'unbalanced-lead')).toBe(
      chance(into('balanced', 1), 'hum', 'unbalanced-lead'),
    )
    expect(chance(into('one-leg', 30), 'hum', 'unbalanced-lead')).toBeGreaterThan(
      3 * chance(into('balanced', 30), 'hum', 'unbalanced-lead'),
    )
  })
  it('a passive pickup has no supply that could close an earth loop; keys have', () => {
    const guitar = (output: string) =>
      chain([
        { gear: { kind: 'electric-source', output, specs: { level: -18, crest: 14, impedance: 8000 } } },
        {
          gear: interfaceWith({ ...micInput({ impedance: 1_000_000 }), type: 'instrument', phantom: false }),
          port: 'in1',
          settings: { gain: 20 },
        },
      ])
    expect(evidence(guitar('passive-pickup'), 'earth-loop', 'hum')).toEqual([])
    expect(evidence(guitar('line'), 'earth-loop', 'hum')).toHaveLength(1)
  })
})

describe('late', () => {
  const heard = (route: string, driver: string): Session => {
    const session = chain([
      { gear: line() },
      { gear: { ...interfaceWith(lineInput()), direct: 'analogue' }, port: 'in1', settings: { gain: 0 } },
    ])
    return {
      ...session,
      system: { ...session.system, driver: driver as never },
      strips: session.strips.map((strip) => ({ ...strip, monitor: { ...strip.monitor, route: route as never } })),
    }
  }
  it('on a direct route it is not the driver; through the host it may be', () => {
    for (const driver of ['class', 'shared'])
      expect(chance(heard('direct', driver), 'late', 'generic-driver'), driver).toBe(0)
    expect(chance(heard('software', 'shared'), 'late', 'generic-driver')).toBeGreaterThan(0.3)
    expect(chance(heard('direct', 'shared'), 'crackle', 'generic-driver')).toBeGreaterThan(0)
  })
})

describe('crackles', () => {
  it('the buffer to go to is the smallest larger one that is known to hold, else the next; none at the largest', () => {
    const cell = (bufferFrames: number, sustainable: boolean) =>
      ({ sampleRate: 48_000, bufferFrames, sustainable }) as TimingCell
    const system = (bufferFrames: number) => ({ sampleRate: 48_000, bufferFrames }) as System
    const buffers = [512, 64, 128, 256]
    expect(largerBuffer(system(64), buffers, [])).toBe(128)
    expect(largerBuffer(system(64), buffers, [cell(128, false), cell(256, true), cell(512, true)])).toBe(256)
    expect(largerBuffer(system(64), buffers, [cell(128, false), { ...cell(256, true), sampleRate: 96_000 }])).toBe(128)
    expect(largerBuffer(system(512), buffers, [cell(512, false)])).toBeNull()
  })
})

describe('too quiet', () => {
  const player = (level: number, gainMax: number) =>
    chain([
      { gear: line({ level, crest: 12 }) },
      { gear: interfaceWith(lineInput({ gainMax, fullScale: 24 })), port: 'in1', settings: { gain: gainMax } },
    ])
  it('−10 dBV into +4 dBu is a cause of its own: 11.8 dB', () => {
    const consumer = player(-7.78, 0)
    expect(diagnose(consumer, 's', { symptoms: ['too-quiet'], answers: {} }).causes[0]?.id).toBe('consumer-level')
    expect(evidence(consumer, 'consumer-level', 'too-quiet')[0]?.says).toContain('11.8 dB under +4 dBu')
    expect(chance(player(4, 0), 'too-quiet', 'consumer-level')).toBeLessThan(
      chance(consumer, 'too-quiet', 'consumer-level') / 4,
    )
  })
})

describe('fixes', () => {
  const padded = (surge: number) =>
    chain([
      { gear: voice({ level: 90, crest: 14, surge }), settings: { distance: 0.3 } },
      { gear: microphone() },
      { gear: interfaceWith(micInput({ gainMax: 35, pad: 10 })), port: 'in1', settings: { gain: 35, pad: true } },
    ])
  it('none takes the room of a surge: a pad stays in where the surge would clip without it', () => {
    let lost = 0
    expect(fixOf(viewOf(padded(0)), 'pad-in').changes?.[0]).toMatchObject({ setting: 'pad', to: false })
    const plain = [{ strip: 's', stage: 's2', setting: 'pad', to: false as never } as const]
    for (const surge of [10, 15, 20]) {
      const before = viewOf(padded(surge))
      const left = (view: DiagnosisView) => Math.min(...view.points.map(({ surgeHeadroom }) => surgeHeadroom ?? 99))
      const takesRoom = left(before) > 0 && left(seenWith(before, plain)) < 0
      expect(keepsItsWord(before, 'pad-in', plain), `${surge} dB`).toBe(!takesRoom)
      lost += takesRoom ? 1 : 0
    }
    expect(lost).toBeGreaterThan(0)
  })
})

describe('sure', () => {
  const quiet = (ein: number) =>
    chain([
      { gear: voice({ level: 80 }), settings: { distance: 0.1 } },
      { gear: microphone({ sensitivity: 2, impedance: 200 }) },
      { gear: interfaceWith(micInput({ ein })), port: 'in1', settings: { gain: 58 } },
    ])
  it('not while the complaint alone speaks: the session has to show cause and symptom, or a check has to be answered', () => {
    for (const symptom of ['hiss', 'hum', 'echo', 'one-side', 'crackle'] as const)
      expect(diagnose(quiet(-127), 's', { symptoms: [symptom], answers: {} }).sure, symptom).toBeNull()
    const clipped = chain([
      { gear: line({ level: 10, crest: 14 }) },
      { gear: interfaceWith(lineInput()), port: 'in1', settings: { gain: 20 } },
    ])
    expect(diagnose(clipped, 's', { symptoms: ['distortion'], answers: {} }).sure).toBe('converter-over')
  })
  it('a hiss that lies 45 dB or more under the programme is none, however likely one cause of it is', () => {
    for (const [spl, noise, heard] of [
      [80, -68, true],
      [90, -84, false],
    ] as const) {
      const session = hotOutput([], spl, noise)
      const [first] = diagnose(session, 's', { symptoms: ['hiss'], answers: {} }).causes
      expect(first?.probability, `${spl} dB SPL`).toBeGreaterThan(0.8)
      expect((viewOf(session).points.at(-1)?.snr ?? NaN) < 45).toBe(heard)
      expect(diagnose(session, 's', { symptoms: ['hiss'], answers: {} }).sure).toBe(heard ? first?.id : null)
      // A check that was answered bears it out as well.
      expect(diagnose(session, 's', { symptoms: ['hiss'], answers: { 'follow-hiss': 'late' } }).sure).toBe(first?.id)
    }
  })
})
