import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { Change } from '#core/edits'
import type { Session } from '#core/session'
import { applyChanges } from '#core/edits'
import { runSheet, withTick, withoutTicks } from '#core/soundcheck/run-sheet'
import { groups, instruction } from '#core/soundcheck/step'
import { demoSession } from '../../demo'

const sheetOf = (session: Session) => runSheet(session, evaluateSession(session))
const step = (session: Session, id: string) => sheetOf(session).find((each) => each.id === id)
const AT = '2026-11-27T18:00:00+00:00'
const allTicked = (session: Session) => sheetOf(session).reduce((sum, each) => withTick(sum, each, AT), session)
const change = (strip: string, stage: string, setting: string, to: unknown) =>
  ({ strip, stage, setting, to }) as unknown as Change

describe('the run sheet of the demo', () => {
  const session = demoSession()
  const steps = sheetOf(session)
  it('goes in the order of a soundcheck (common practice): everything down before the plugs, loudspeakers last', () => {
    const order = steps.map(({ group }) => groups.indexOf(group))
    expect(order).toEqual([...order].sort((a, b) => a - b))
    expect(new Set(steps.map(({ group }) => group))).toEqual(new Set(groups.filter((each) => each !== 'pairs')))
  })
  it('works out a caution when it is read, and once', () => {
    let asked = 0
    const late = instruction({ id: 'x', group: 'plugs', title: 'X', caution: () => `Caution ${++asked}` })
    const same = Object.assign(late, { state: 'open' })
    expect(asked).toBe(0)
    expect([same.caution, same.caution, asked]).toEqual(['Caution 1', 'Caution 1', 1])
    expect(JSON.parse(JSON.stringify(same)).caution).toBe('Caution 1')
  })
  it('says to which position, on which meter, and what must be read there', () => {
    expect(step(session, 'narrator.n3.gain')).toMatchObject({
      title: 'Gain: 35 dB on mic1 of Saltmarsh Four',
      detail: 'Knob about a quarter past one.',
      read: { stage: 'n3', reads: 'peak', low: -18, high: -12, unit: 'dBFS', meter: 'the recorder’s meter' },
    })
    expect(step(session, 'preview.v2.fader')?.read).toMatchObject({ reads: 'pfl', unit: 'dB' })
    expect(step(session, 'preview.v4.loudspeaker')?.read).toMatchObject({ reads: 'spl', unit: 'dB SPL' })
  })
  it('48 V is switched by bank, and who must not get it is named with the caution', () => {
    const phantom = steps.filter(({ group }) => group === 'phantom')
    expect(phantom.map(({ title }) => title)).toEqual([
      '48 V of bank A of Saltmarsh Four: on',
      'Keep 48 V of bank B of Saltmarsh Four off',
    ])
    expect(phantom[1]?.detail).toBe('“Old Punt ribbon” must not get it.')
    for (const { caution } of phantom) expect(caution).toMatch(/muted/)
  })
  it('cautions stand at headphones and loudspeakers', () => {
    for (const each of steps.filter(({ group }) => group === 'headphones' || group === 'loudspeakers'))
      expect(each.caution).toMatch(/down/)
  })
  it('what the planner would set otherwise is told beside the gain', () => {
    const planned = [{ strip: 'narrator', stage: 'n3', setting: 'gain' as const, from: 35, to: 33, reason: '' }]
    const found = runSheet(session, evaluateSession(session), planned).find(({ id }) => id === 'narrator.n3.gain')
    expect(found?.set?.planned).toBe(33)
    expect(found?.detail).toMatch(/Planned: 33 dB/)
  })
})

describe('a step that no longer holds', () => {
  const done = allTicked(demoSession())
  const again = (session: Session) =>
    sheetOf(session)
      .filter(({ state }) => state === 'again')
      .map(({ id }) => id)
  it('everything ticked is done', () => expect(sheetOf(done).every(({ state }) => state === 'done')).toBe(true))
  it('opens again with everything behind it, in the strip and in the busses that it feeds, and nothing else', () => {
    const turned = applyChanges(done, [change('narrator', 'n3', 'gain', 30)])
    expect(again(turned)).toEqual([
      'narrator.n3.gain',
      'narrator.arm',
      'stream.w1.sends',
      'stream.w1.gain',
      'stream.w2.section-0',
      'preview.v1.sends',
      'preview.v2.gain',
      'preview.v2.fader',
      'preview.v3.gain',
      'preview.v4.loudspeaker',
    ])
  })
  it('stays open until it is ticked itself, and each later one too', () => {
    const turned = applyChanges(done, [change('cello', 'c1', 'distance', 1)])
    expect(again(turned)).toContain('cello.c3.gain')
    const ticked = withTick(turned, step(turned, 'cello.c1.distance') ?? { id: '', holds: '' }, AT)
    expect(again(ticked)).not.toContain('cello.c1.distance')
    expect(again(ticked)).toContain('cello.c3.gain')
    expect(again(allTicked(turned))).toEqual([])
  })
  it('turned back, it holds again', () => {
    const there = applyChanges(done, [change('narrator', 'n3', 'gain', 30)])
    expect(again(applyChanges(there, [change('narrator', 'n3', 'gain', 35)]))).toEqual([])
  })
  it('a phantom switch, a rate and a way of hearing open their own steps', () => {
    const off = applyChanges(done, [
      change('narrator', 'n3', 'phantom', false),
      change('cello', 'c3', 'phantom', false),
    ])
    expect(again(off)[0]).toMatch(/^phantom\./)
    expect(again({ ...done, system: { ...done.system, sampleRate: 96_000 as never } })).toEqual([
      'system.rate',
      'system.disk',
      'timing.rate',
    ])
  })
  it('a tick from elsewhere without its ground holds', () => {
    const session = { ...demoSession(), soundcheck: { ticks: [{ step: 'narrator.n3.gain' }] } }
    expect(step(session, 'narrator.n3.gain')?.state).toBe('done')
  })
  it('begun anew, nothing is ticked and what was read stays', () => {
    const readings = [{ id: 'r', strip: 'narrator', stage: 'n3', reads: 'peak', value: -11, unit: 'dBFS', by: 'typed' }]
    const fresh = withoutTicks({ ...done, soundcheck: { ...done.soundcheck, readings } } as Session)
    expect(sheetOf(fresh).every(({ state }) => state === 'open')).toBe(true)
    expect(fresh.soundcheck?.readings).toHaveLength(1)
  })
})
