import { expect, it } from 'vitest'
import { applyChanges } from '#core/edits'
import { gearById, stagesOf } from '#core/resolved/resolve-session'
import type { Strip } from '#core/model'
import { demoSession } from '#demo/index'

it('joins a session once, and a stage that an edit does not touch stays the same object', () => {
  const session = demoSession()
  const strip = session.strips[0] as Strip
  expect(stagesOf(session, strip)).toBe(stagesOf(session, strip))
  expect(gearById(session)).toBe(gearById(session))
  const before = stagesOf(session, strip)
  const turned = before.findIndex(({ settings }) => settings.gain !== undefined)
  const stage = strip.stages[turned]?.id ?? ''
  const now = applyChanges(session, [{ strip: strip.id, stage, setting: 'gain', to: 20 }])
  const after = stagesOf(now, now.strips[0] as Strip)
  expect(before.map((each, i) => each === after[i])).toEqual(before.map((_, i) => i !== turned))
  expect(after[turned]).toMatchObject({ gain: 20 })
})

it('joins anew what another box stands behind', () => {
  const session = demoSession()
  const strip = session.strips[0] as Strip
  const [first, ...rest] = stagesOf(session, strip)
  const now = {
    ...session,
    gear: session.gear.map((box) => (box.id === first?.gear.id ? { ...box, name: 'Another' } : box)),
  }
  const [changed, ...others] = stagesOf(now, strip)
  expect(changed?.gear.name).toBe('Another')
  expect(others.map((each, i) => each === rest[i])).not.toContain(false)
})
