import { describe, expect, it } from 'vitest'
import { behindJoint } from '#core/chain/joint'
import { hasReserve } from '#core/chain/reserve'
import { withMeasuredEin } from '#core/gear/equivalent-input-noise'
import type { TwoPort } from '#core/gear/two-port'
import { listenTo } from '#core/measure/heard/listen'
import { planSession } from '#core/plan/plan-session'
import { feedFrom } from '#core/session'
import { sine } from '#core/signals/generate'
import { keepOnto } from '#core/soundcheck/keep-onto'
import type { Explained } from '#core/soundcheck/inferred'
import { db, dbu, ohms } from '#core/units'
import { chain, interfaceWith, line, lineInput, preamp, voice, microphone, micInput } from '../support/chains'
import { twoMixes } from '../support/desk'
import { valid } from '../support/sessions'

/** Rules that other tests take for granted: each is broken once by `npm run rules`. */
describe('a reading is kept where it belongs', () => {
  const explains = (cause: Explained['cause'], shift: number): Explained => ({
    input: cause,
    name: cause,
    cause,
    shift,
    u: 1,
  })
  it('one that a gain explains is not kept: its knob says what it is set to', () => {
    expect(keepOnto([explains('gain', 4), explains('source', 1)])).toBeNull()
  })
  it('one that the microphone explains is kept with it, any other with the source', () => {
    expect(keepOnto([explains('microphone', 4), explains('source', 1)])).toBe('microphone')
    expect(keepOnto([explains('source', 4), explains('gain', 1)])).toBeUndefined()
    expect(keepOnto([])).toBeUndefined()
  })
})

describe('a loss in a connection belongs to the input behind it', () => {
  // 6 dB are lost before an input that clips at +10 dBu and compresses above 0 dBu.
  const behind = behindJoint(
    {
      stage: 's',
      unit: 'dBu',
      gain: db(0),
      inputCeiling: dbu(10),
      outputCeiling: null,
      noise: [],
      curve: { level: (level: number) => Math.min(level, 0), fixed: db(0) },
    } as unknown as TwoPort,
    db(-6),
  )
  it('what comes to it may be 6 dB louder before it clips', () => {
    expect(behind.inputCeiling).toBe(16)
    expect(behind.gain).toBe(-6)
  })
  it('its curve begins where its own terminals see the threshold', () => {
    expect(behind.curve?.level(5)).toBe(5)
    expect(behind.curve?.level(6)).toBe(6)
    expect(behind.curve?.level(9)).toBe(6)
  })
})

describe('the reserve of a stage', () => {
  it.each([
    [10, 3, true],
    [9.9, 30, false],
    [30, 2.9, false],
    [null, null, true],
  ] as const)('%s dB over the peak and %s dB over the surge: %s', (headroom, surgeHeadroom, has) => {
    expect(hasReserve({ headroom, surgeHeadroom } as Parameters<typeof hasReserve>[0])).toBe(has)
  })
})

describe('a gain that is locked', () => {
  it('stays where it is, whatever it would take', () => {
    const planned = (locked: string[]) =>
      planSession(
        chain([
          { gear: line({ level: -30 }) },
          { gear: preamp(), settings: { gain: 5 }, locked },
          { gear: interfaceWith(lineInput()), port: 'in1', settings: { gain: 0 } },
        ]),
      ).settings.map(({ stage }) => stage)
    expect(planned([])).toContain('s1')
    expect(planned(['gain'])).not.toContain('s1')
  })
})

describe('a bus is fed from where the signal is strong', () => {
  it('not from behind the microphone: a microphone straight into the interface feeds no desk', () => {
    const session = valid(twoMixes())
    const group = session.strips.find(({ id }) => id === 'stream')
    const direct = chain([{ gear: voice() }, { gear: microphone() }, { gear: interfaceWith(micInput()), port: 'in1' }])
    const [strip] = direct.strips
    if (!strip || !group) throw new Error('no strip')
    const both = { ...session, gear: [...session.gear, ...direct.gear], strips: [...session.strips, strip] }
    const analogue = { ...group, stages: group.stages.slice(0, 1) }
    expect(feedFrom(both, strip, analogue)).toBeNull()
  })
})

describe('an equivalent input noise', () => {
  const printed = { ein: dbu(-125), einWeighting: 'Z' as const, einSource: ohms(0) }
  it('as printed has the weighting and the resistor that the maker says', () => {
    expect(withMeasuredEin({ specs: printed })).toEqual(printed)
  })
  it('as measured here is A-weighted and of 150 Ω', () => {
    const measured = { ein: { value: -127, on: '2026-11-02', method: 'resistor' } }
    expect(withMeasuredEin({ specs: printed, measured })).toEqual({
      ein: -127,
      einWeighting: 'A',
      einSource: undefined,
    })
  })
})

describe('a recording without a pause', () => {
  it('has no floor and no hum: 50 Hz beside a steady tone is music', () => {
    const [tone, low] = [sine(48_000, 6, 997, -20), sine(48_000, 6, 50, -26)]
    const heard = listenTo([tone.map((x, i) => x + (low[i] ?? 0))], 48_000)
    expect('channels' in heard && heard.channels[0]).toMatchObject({ floor: null, hum: null })
  })
})
