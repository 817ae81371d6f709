import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { planSession } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import { applyChanges } from '#core/edits'
import { chain, interfaceWith, line, lineInput, micInput, microphone, preamp, voice } from '../support/chains'

const at = (session: Session) => {
  const [strip] = planSession(session).strips
  if (!strip) throw new Error('no strip')
  return strip
}
const target = { version: 2, target: 'peaks-18-12' }
const spoken = (level: number, input: object, settings: object = {}, distance = 0.3) =>
  chain(
    [
      { gear: voice({ level }), settings: { distance } },
      { gear: microphone() },
      { gear: interfaceWith(micInput(input)), port: 'in1', settings },
    ],
    target,
  )
/** The remedy done, and planned with it. */
function done(session: Session) {
  const { remedy } = at(session)
  return at(applyChanges(session, remedy?.changes ?? [])).off
}

describe('too loud at the lowest gain', () => {
  it('its own pad first', () => {
    const session = spoken(118, { gainMin: 20, gainMax: 60, pad: 20, fullScale: 0 })
    expect(at(session).off).toBeGreaterThan(0)
    expect(at(session).remedy).toEqual({
      message: expect.stringMatching(
        /^With its gains at their minimum it is still [\d.]+ dB over the window: put the pad of 20 dB of “Box 2” in\.$/,
      ),
      decibels: 20,
      changes: [{ strip: 's', stage: 's2', setting: 'pad', to: true }],
    })
    expect(done(session)).toBe(0)
  })
  it('without one, a pad in the cable, of as many decibels as it takes', () => {
    const session = spoken(118, { gainMin: 20, gainMax: 60, fullScale: 0 })
    const { off, remedy } = at(session)
    expect(remedy?.message).toMatch(/put a pad of \d+ dB before “Box 2”\.$/)
    expect(remedy?.decibels).toBeGreaterThanOrEqual(Math.floor(off))
    expect(remedy?.decibels).toBeLessThanOrEqual(Math.ceil(off) + 6)
    expect(remedy?.changes).toEqual([expect.objectContaining({ do: 'insert', strip: 's', index: 2 })])
    expect(done(session)).toBe(0)
  })
  it('more than any pad takes: by hand, in words', () => {
    const session = chain(
      [
        { gear: line({ level: 20, maxOutput: 60 }) },
        { gear: interfaceWith(lineInput({ fullScale: -40, gainMax: 0 })), port: 'in1' },
      ],
      target,
    )
    expect(at(session).remedy).toMatchObject({ changes: [] })
    expect(at(session).remedy?.message).toMatch(
      /Turn the source down, go further away, or use a less sensitive input\./,
    )
  })
  it('in numbers no pad is put: only a hand can help', () => {
    const session = chain(
      [
        { gear: { kind: 'playback', specs: { level: 0, crest: 3 } } },
        { gear: { kind: 'interface', inputs: [{ id: 'd', type: 'digital' }] }, port: 'd' },
      ],
      target,
    )
    expect(at(session).remedy?.changes).toEqual([])
  })
})

describe('too quiet at the highest gain', () => {
  it('a pad that is in comes out', () => {
    const session = spoken(80, { gainMax: 50, pad: 20 }, { gain: 50, pad: true })
    expect(at(session).off).toBeLessThan(0)
    expect(at(session).remedy).toMatchObject({
      message: expect.stringMatching(
        /^With its gains at their maximum it is still [\d.]+ dB under the window: take the pad of “Box 2” out\.$/,
      ),
      decibels: 20,
      changes: [{ strip: 's', stage: 's2', setting: 'pad', to: false }],
    })
    expect(done(session)).toBe(0)
  })
  it('nearer, in metres', () => {
    const session = spoken(60, { gainMax: 50 }, { gain: 50 }, 0.6)
    const { remedy } = at(session)
    expect(remedy?.message).toMatch(/0\.\d+ m/)
    expect(remedy?.changes).toEqual([expect.objectContaining({ stage: 's0', setting: 'distance' })])
    expect(done(session)).toBe(0)
  })
  it('what has no more headroom on the way is named', () => {
    const session = chain(
      [
        { gear: line({ level: -30, noise: -120 }) },
        { gear: preamp({ maxOutput: 0, gainStep: 1 }) },
        { gear: interfaceWith(lineInput({ gainMax: 0, fullScale: 24 })), port: 'in1' },
      ],
      target,
    )
    expect(at(session).remedy?.message).toMatch(
      /^It stays [\d.]+ dB under the window, because “Box 1” has no more headroom/,
    )
    expect(at(session).remedy?.message).toMatch(
      /Use an input that is at least [\d.]+ dB more sensitive behind “Box 1”\./,
    )
  })
})

it('a stage that clips at every setting gets its pad before it', () => {
  const session = chain(
    [
      { gear: line({ level: 20, noise: -90, maxOutput: 60 }) },
      { gear: preamp({ gainMin: 0, gainMax: 20, maxInput: 10, maxOutput: 40 }) },
      { gear: interfaceWith(lineInput({ gainMin: -20, fullScale: 50 })), port: 'in1' },
    ],
    target,
  )
  const { remedy } = at(session)
  expect(remedy?.message).toMatch(/^“Box 1” clips at every setting: put a pad of \d+ dB before “Box 1”\.$/)
  const after = planSession(applyChanges(session, remedy?.changes ?? []))
  expect(after.strips[0]?.off).toBe(0)
  expect(after.evaluation.strips[0]?.points.every((point) => !point.clipped)).toBe(true)
})

it('where the target is reached there is none', () => {
  expect(at(spoken(70, {})).remedy).toBeNull()
})

describe('every gain says why it is what it is', () => {
  const reasons = (session: Session) => at(session).gains.map(({ reason }) => reason)
  const two = (first: object, second: object, more: object = {}) =>
    chain(
      [
        { gear: line({ level: -50, noise: -120 }) },
        { gear: preamp(first), ...more },
        { gear: interfaceWith(lineInput(second)), port: 'in1' },
      ],
      target,
    )
  it('its maximum, and the target behind it', () => {
    expect(reasons(two({ gainMax: 30, gainStep: 1 }, { gainMax: 40, gainStep: 1 }))).toEqual([
      'As early as possible: this is its maximum gain.',
      expect.stringMatching(
        /^The loudest rehearsed peak then reads −1[5-6]\.\d dBFS; the target aims at −15\.0, the closest possible with its steps\.$/,
      ),
    ])
  })
  it('its maximum where that is not enough', () => {
    expect(reasons(two({ gainMax: 10 }, { gainMax: 5 }))[1]).toMatch(/aims at −15\.0, but this is its maximum gain\.$/)
  })
  it('its minimum where that is too much', () => {
    expect(reasons(two({ gainMin: 50, gainMax: 60 }, { gainMin: 10, gainMax: 20, fullScale: 4 })).at(-1)).toMatch(
      /but this is its minimum gain\.$/,
    )
  })
  it('headroom, with what is left and where', () => {
    expect(reasons(two({ maxOutput: 0, gainStep: 1 }, { gainMax: 40 }))[0]).toMatch(
      /^As far as headroom allows: 10\.\d dB are left at “Box 1”\.$/,
    )
  })
  it('a lock, a driven stage', () => {
    expect(reasons(two({}, {}, { locked: ['gain'], settings: { gain: 40 } }))[0]).toBe('Locked.')
    expect(reasons(two({}, {}, { driven: true }))[0]).toBe('Left as it is: the stage is overdriven on purpose.')
  })
  it('a processor whose level is held', () => {
    const session = chain(
      [
        { gear: line({ level: -50, noise: -120 }) },
        { gear: preamp(), settings: { gain: 30 } },
        { gear: { kind: 'processor', blocks: [{ type: 'compressor', threshold: -10, ratio: 3 }], specs: {} } },
        { gear: interfaceWith(lineInput({ gainMax: 60 })), port: 'in1' },
      ],
      target,
    )
    expect(reasons(session)[0]).toBe('Keeps the level at “Box 2” where it was set: its sound is your choice.')
  })
  it('what stands behind the place of reading, and a strip that reaches no recorder', () => {
    const fader = { gear: { kind: 'fader', place: 'host', specs: {} }, settings: { gain: -3 } }
    const recorded = chain(
      [{ gear: line() }, { gear: interfaceWith(lineInput({ gainMax: 0 })), port: 'in1' }, fader],
      target,
    )
    expect(reasons(recorded).at(-1)).toBe('Left as it is: it is behind the place where the target is read.')
    const nowhere = chain([{ gear: line() }, { gear: preamp() }], target)
    expect(reasons(nowhere)).toEqual(['Left as it is: the strip is not recorded.'])
  })
})

it('where the last gain is at its end, the finding turns the one before it, and asks for no pad', () => {
  const session = chain(
    [
      { gear: line({ level: -30, noise: -120 }) },
      { gear: preamp({ gainStep: 1 }), settings: { gain: 30 } },
      { gear: interfaceWith(lineInput({ gainStep: 1 })), port: 'in1', settings: { gain: 0 } },
    ],
    target,
  )
  const found = evaluateSession(session).strips[0]?.findings.find((each) => each.code === 'target-missed')
  expect(found?.changes).toEqual([expect.objectContaining({ stage: 's1', setting: 'gain', to: 24 })])
})
