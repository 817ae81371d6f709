import { originOf } from '#core/gear'
import { describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { formatChance } from '#core/evaluation/how-sure-words'
import { verdict } from '#core/evaluation/verdict'
import { sectionModel } from '~/shared/section/section-model'
import { drawSection } from '~/features/path/section-drawing'
import type { Reading } from '#core/model'
import type { Session } from '#core/session'
import { inputSpread, toleranceOf } from '#core/model'
import { readSession, writeSession } from '#core/files'
import { withTolerance } from '#core/edits'
import { fieldOfInput, withInput } from '#core/uncertainty/edit-input'
import { gained } from '#core/uncertainty/gained'
import { uncertainInputs } from '#core/uncertainty/inputs'
import { keepReading } from '#core/soundcheck/keep-reading'
import { whatNext } from '#core/uncertainty/next'
import { propagate, uncertaintyOf } from '#core/uncertainty/uncertainty'
import { surgeUncertainty } from '#core/uncertainty/window'
import { example1, valid, withAt } from '../support/sessions'

const session = valid(example1())
const input = (each: Session, path: string) => uncertainInputs(each).find((one) => one.path === path)
const endOf = (each: Session) => uncertaintyOf(each).strips[0]?.points.at(-1)

describe('where a value is from', () => {
  const of = (path: string) => input(session, path)?.origin
  it('how a performer plays, the room and a distance by eye are assumed; a device’s figures are printed', () => {
    for (const path of [
      'gear.voice.level',
      'gear.voice.crest',
      'gear.voice.surge',
      'room.ambient',
      'strips.narrator.narrator-source.distance',
    ])
      expect(of(path)).toBe('assumed')
    expect(of('gear.mic.sensitivity')).toBe('printed')
    expect(of('gear.unit.inputs.mic1.fullScale')).toBe('printed')
    expect(of('gear.unit.latency.safetyIn')).toBe('printed')
  })
  it('a usual figure that nobody touched is assumed', () => {
    const usual = valid(withAt(example1(), ['gear', 1, 'assumed'], ['sensitivity']))
    expect(input(usual, 'gear.mic.sensitivity')?.origin).toBe('assumed')
    const mic = usual.gear[1] as { kind: 'microphone' }
    expect(originOf('microphone', mic as never, 'impedance')).toBe('printed')
  })
  it('what was measured is measured: with its spread by its statistic, a quarter of the usual where none is given', () => {
    const measured = (spread: unknown) =>
      valid(withAt(example1(), ['gear', 1, 'measured'], { sensitivity: { value: 15.2, on: '2026-11-01', spread } }))
    expect(input(measured(0.3), 'gear.mic.sensitivity')).toMatchObject({
      origin: 'measured',
      on: '2026-11-01',
      value: 15.2,
    })
    expect(input(measured(0.3), 'gear.mic.sensitivity')?.doubt.u).toBeCloseTo(0.3 / Math.sqrt(3), 9)
    expect(input(measured({ value: 0.3, is: 'sd' }), 'gear.mic.sensitivity')?.doubt.u).toBe(0.3)
    expect(input(measured({ value: 0.3, is: 'ci95' }), 'gear.mic.sensitivity')?.doubt.u).toBeCloseTo(0.3 / 1.96, 9)
    expect(input(measured(undefined), 'gear.mic.sensitivity')?.doubt).toMatchObject({
      u: 0.5 / Math.sqrt(3),
      of: 'decibels',
    })
  })
  it('a measured room and a measured distance count, and come back from the file', () => {
    const file = { ...example1(), version: 2, room: { ambient: 28, measured: { ambient: { value: 31, spread: 1 } } } }
    const room = valid(file)
    expect(input(room, 'room.ambient')).toMatchObject({ origin: 'measured', value: 31 })
    expect(evaluateSession(room).strips[0]?.points[0]?.noise).toBe(31)
    const far = valid(withAt(file, ['strips', 0, 'stages', 0, 'tolerance'], { distance: 0.01 }))
    expect(input(far, 'strips.narrator.narrator-source.distance')?.doubt).toMatchObject({ of: 'value' })
    expect(readSession(JSON.parse(writeSession(far)))).toMatchObject({ ok: true, session: far })
  })
  it('a maker’s tolerance takes the place of the usual one, in the value’s unit', () => {
    const mic = { specs: { maxSpl: 134 }, tolerance: { maxSpl: 0.4 } }
    expect(toleranceOf(mic, 'maxSpl', { unit: 'dB SPL' })).toEqual({ half: 0.4, of: 'value' })
    expect(inputSpread(mic, 'maxSpl', { unit: 'dB SPL', min: 60 })?.u).toBeCloseTo(0.4 / Math.sqrt(3), 9)
    expect(withTolerance(mic, 'maxSpl', undefined).tolerance).toBeUndefined()
  })
  it('and in the unit that stands beside it: dB of a ratio, percent of what cannot be negative', () => {
    const mic = { tolerance: { sensitivity: { value: 2, unit: 'dB' }, impedance: { value: 10, unit: '%' } } }
    expect(toleranceOf(mic, 'sensitivity', { unit: 'mV/Pa' })).toEqual({ half: 2, of: 'decibels' })
    expect(toleranceOf(mic, 'impedance', { unit: 'Ω' })).toEqual({ half: 10, of: 'percent' })
    expect(toleranceOf({ tolerance: { ein: { value: 1, unit: 'dB' } } }, 'ein', { unit: 'dBu' })).toEqual({
      half: 1,
      of: 'value',
    })
    const session = valid(withAt(example1(), ['gear', 1, 'tolerance'], mic.tolerance))
    expect(input(session, 'gear.mic.sensitivity')?.doubt).toMatchObject({ u: 2 / Math.sqrt(3), of: 'decibels' })
    expect(readSession(JSON.parse(writeSession(session)))).toMatchObject({ ok: true, session })
  })
})

describe('what cannot be is refused or held', () => {
  it('a tolerance of no figure, with its path', () => {
    const paths = (file: unknown) => {
      const reading = readSession(file)
      return reading.ok ? [] : reading.faults.map(({ path }) => path)
    }
    expect(paths(withAt(example1(), ['gear', 1, 'tolerance'], { sensitivty: 1 }))).toEqual([
      'gear[1].tolerance.sensitivty',
    ])
    expect(paths(withAt(example1(), ['gear', 2, 'tolerance'], { level: 1 }))).toEqual(['gear[2].tolerance.level'])
    expect(paths(withAt(example1(), ['gear', 2, 'inputs', 0, 'tolerance'], { fullScale: 0.2 }))).toEqual([])
  })
  it('a tolerance in a unit that says nothing of the figure, with the units that do', () => {
    const reading = readSession(
      withAt(example1(), ['gear', 1, 'tolerance'], {
        sensitivity: { value: 2, unit: 'Ω' },
        selfNoise: { value: 3, unit: '%' },
      }),
    )
    expect(reading.ok ? [] : reading.faults.map(({ path, message }) => [path, message])).toEqual([
      ['gear[1].tolerance.sensitivity.unit', 'State this tolerance in mV/Pa or dB or %.'],
      ['gear[1].tolerance.selfNoise.unit', 'State this tolerance in dB.'],
    ])
  })
  it('a width far over the value leaves figures', () => {
    const wild = valid(
      withAt(example1(), ['gear', 1, 'tolerance'], { sensitivity: 9000, impedance: 9999, selfNoise: 500 }),
    )
    expect(JSON.stringify(uncertaintyOf(wild).strips)).not.toMatch(/null,"u"|"u":null|NaN/)
    for (const { u } of [endOf(wild)?.peak, endOf(wild)?.noise].flatMap((each) => each ?? []))
      expect(u).toBeGreaterThan(1)
  })
})

describe('one device in two strips is one input', () => {
  const file = example1() as { strips: { id: string; stages: object[] }[] }
  const two = valid({
    ...file,
    strips: [
      ...file.strips,
      {
        ...file.strips[0],
        id: 'again',
        stages: file.strips[0]?.stages.map((each, i) => ({ ...each, id: `again-${i}` })),
      },
    ],
  })
  it('its figures are told once, with both strips', () => {
    expect(input(two, 'gear.mic.sensitivity')?.strips).toEqual(['narrator', 'again'])
    expect(uncertainInputs(two).filter(({ path }) => path === 'gear.mic.sensitivity')).toHaveLength(1)
    // What is set at each by itself is one each.
    expect(uncertainInputs(two).filter(({ path }) => path.endsWith('.gain'))).toHaveLength(2)
  })
  it('so the difference of the two strips is known far better than either', () => {
    const [one, other] = uncertaintyOf(two).strips
    const common = one?.points
      .at(-1)
      ?.peak.shares.filter(({ input: path }) => other?.points.at(-1)?.peak.shares.some((each) => each.input === path))
    expect(common?.reduce((sum, { share }) => sum + share, 0)).toBeGreaterThan(0.97)
  })
})

describe('a reading of the loudest passage, 4 dB over the plan', () => {
  const planned = endOf(session)?.peak.value ?? 0
  const reading: Reading = {
    id: 'r1',
    strip: 'narrator',
    stage: 'narrator-input',
    reads: 'peak',
    value: planned + 4,
    unit: 'dBFS',
    by: 'typed',
  }
  const kept = keepReading(session, reading, '2026-11-27')
  const after = kept.ok ? kept.session : session
  it('makes the source 4 dB louder, as measured, and says so', () => {
    expect(kept).toMatchObject({ ok: true })
    expect(kept.ok && kept.difference).toBeCloseTo(4, 6)
    expect(evaluateSession(after).strips[0]?.points.at(-1)?.peak).toBeCloseTo(planned + 4, 1)
    expect(input(after, 'gear.voice.level')).toMatchObject({ origin: 'measured', on: '2026-11-27' })
  })
  it('and everything at the recorder is known to about half a decibel', () => {
    expect(endOf(after)?.peak.u).toBeLessThan(0.5)
    expect(endOf(after)?.peak.u).toBeGreaterThan(0.4)
    expect(gained(after, uncertaintyOf(session), uncertaintyOf(after))).toBe(
      'Now more certain: narrator, headroom ± 6.7 → ± 1.0 dB.',
    )
  })
  it('a target by risk gives more gain for it', () => {
    const strip = after.strips[0] as Session['strips'][0]
    expect(surgeUncertainty(after, strip)).toBeLessThan(2)
    expect(surgeUncertainty(session, session.strips[0] as Session['strips'][0])).toBeCloseTo(3.79, 2)
  })
  it('reading the same again promises no more than it can: what a peak says of the noise is little', () => {
    const again = whatNext(propagate(after)).find(({ place }) => place.at === 'reading')
    // A second reading of the same worth, put in: what it really leaves.
    const twice = {
      ...after,
      soundcheck: { readings: [...(after.soundcheck?.readings ?? []), { ...reading, id: 'r2' }] },
    }
    expect(again?.figure).toBe('headroom')
    expect(again?.after).toBeCloseTo(endOf(twice)?.headroom?.u ?? 0, 6)
    expect((endOf(after)?.snr?.u ?? 0) - (endOf(twice)?.snr?.u ?? 0)).toBeLessThan(0.06)
  })
  it('the same promise before the first: what is foretold is what comes', () => {
    const first = whatNext(propagate(session)).find(
      ({ place, figure }) => place.at === 'reading' && figure === 'headroom',
    )
    const read = { ...session, soundcheck: { readings: [{ ...reading, value: planned }] } }
    expect(first?.after).toBeCloseTo(endOf(read)?.headroom?.u ?? 0, 6)
  })
  it('a second one at the same meter stays beside it; the file keeps both', () => {
    const again = keepReading(after, { ...reading, id: 'r2', value: planned + 3 }, '2026-11-27')
    expect(again.ok && again.session.soundcheck?.readings?.map(({ id }) => id)).toEqual(['r1', 'r2'])
    expect(readSession(JSON.parse(writeSession(after))).ok).toBe(true)
  })
  it('what is held by a ceiling tells nothing, and is refused in words', () => {
    const loud = valid(withAt(example1(), ['gear', 0, 'specs', 'level'], 150))
    const refused = keepReading(loud, { ...reading, value: 0 }, '2026-11-27')
    expect(refused.ok).toBe(false)
    expect(!refused.ok && refused.message).toMatch(/A ceiling or a limiter before that meter/)
  })
  it('a reading of what is not there changes nothing', () => {
    const lost = {
      ...session,
      soundcheck: {
        readings: [
          { ...reading, stage: 'gone' },
          { ...reading, strip: 'gone' },
        ],
      },
    }
    expect(endOf(lost)?.peak.u).toBeCloseTo(endOf(session)?.peak.u ?? 0, 9)
  })
})

describe('editing an input where it is told', () => {
  it('each input has a field and takes a value; the figure follows', () => {
    for (const each of uncertainInputs(demoSession())) {
      if (each.place.in === 'round-trips') continue
      const field = fieldOfInput(demoSession(), each.place)
      expect(field, each.path).not.toBeNull()
      const changed = withInput(demoSession(), each.place, each.value * 1.001)
      expect(input(changed, each.path)?.value, each.path).toBeCloseTo(each.value * 1.001, 9)
    }
  })
  it('a usual figure that is changed there is assumed no longer', () => {
    const usual = valid(withAt(example1(), ['gear', 1, 'assumed'], ['sensitivity']))
    const place = input(usual, 'gear.mic.sensitivity')?.place
    expect(place && input(withInput(usual, place, 12), 'gear.mic.sensitivity')?.origin).toBe('printed')
  })
})

describe('in words and in the picture', () => {
  const sure = uncertaintyOf(session).strips[0] ?? null
  const evaluated = evaluateSession(session).strips[0] as NonNullable<ReturnType<typeof evaluateSession>['strips'][0]>
  const strip = session.strips[0] as Session['strips'][0]
  it('the verdict has its ±, and says the risk', () => {
    const { headroom, floor, latency } = verdict(session, strip, evaluated, null, sure)
    expect(headroom.headline).toBe('Headroom 19.5 ± 6.7 dB')
    expect(headroom.detail).toMatch(/13\.5 dB after the surge; 0\.02 % risk of clipping$/)
    expect(floor.detail).toContain('SNR 50.3 ± 6.7 dB')
    expect(latency.headline).toMatch(/^Monitoring delay 8\.54 ± 0\.15 ms$/)
    expect(verdict(session, strip, evaluated).headroom.headline).toBe('Headroom 19.5 dB')
  })
  it('a chance is never a certainty', () => {
    expect([0, 0.00004, 0.00018, 0.034, 0.5, 0.9999].map(formatChance)).toEqual([
      'under 0.01 %',
      'under 0.01 %',
      '0.02 %',
      '3.4 %',
      '50 %',
      'over 99.9 %',
    ])
  })
  it('the section’s edges get a penumbra of two u, and none where it is not wanted', () => {
    const model = sectionModel(evaluated.points, 'ceiling', null, null, null, sure?.points)
    expect(model.columns[2]?.doubt?.surge).toBeCloseTo(2 * 3.79, 1)
    expect(drawSection(model, 800, 300).penumbra.surge).toMatch(/^M/)
    const plain = drawSection(sectionModel(evaluated.points, 'ceiling', null, null), 800, 300)
    expect(plain.penumbra).toEqual({ surge: '', average: '', floor: '' })
  })
})

it('of the demo the first four things to do are readings, each worth over 2 dB a minute', () => {
  const next = whatNext(propagate(demoSession()))
  for (const each of next.slice(0, 4)) {
    expect(each).toMatchObject({ what: 'Take a peak reading at the recorder', minutes: 1 })
    expect(each.before - each.after).toBeGreaterThan(2)
  }
  expect(next.map(({ what }) => what)).toContain('Measure the empty room with a sound level meter')
})
