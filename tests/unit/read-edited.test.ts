import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addBus, applyChanges, copyStrip, editGear, removeStrip, withSpec } from '#core/edits'
import { readEdited, readSession } from '#core/files'
import type { Session } from '#core/session'
import { intoBusses } from '../speed/subjects'
import { demoSession } from '#demo/index'
import { runs } from '../support/runs'

const demo = demoSession()

/** What a file of the edited session would read as. */
const wholly = (edited: Session) => readSession(JSON.parse(JSON.stringify(edited)))

/** Every place of a session, as the keys that lead to it. */
function placesIn(value: unknown, at: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [at]
  const entries = Array.isArray(value) ? value.map((each, i) => [i, each] as const) : Object.entries(value)
  return [at, ...entries.flatMap(([key, each]) => placesIn(each, [...at, key]))]
}

/** The same with another value at a place; what does not lead there is shared. */
function replaced(value: unknown, [key, ...rest]: (string | number)[], by: (was: unknown) => unknown): unknown {
  if (key === undefined) return by(value)
  const next = replaced((value as Record<string | number, unknown>)[key], rest, by)
  if (Array.isArray(value)) return value.map((each, i) => (i === key ? next : each))
  return { ...(value as object), [key]: next }
}

/** What is put in place of a value: much of it no session can hold. */
const replacement = fc.oneof(
  fc.constantFrom<(was: unknown) => unknown>(
    () => undefined,
    () => null,
    () => [],
    () => ({}),
    (was) => (typeof was === 'number' ? was + 1 : was),
    (was) => (typeof was === 'number' ? -was : was),
    (was) => (Array.isArray(was) ? [...was].reverse() : was),
    (was) => (Array.isArray(was) ? [...was, was[0]] : was),
    (was) => (Array.isArray(was) ? was.slice(1) : was),
    (was) => (typeof was === 'object' && was !== null ? { ...was, unknown: 1 } : was),
    (was) => (typeof was === 'boolean' ? !was : was),
  ),
  fc.constantFrom('demo', 'narrator', 'harmonium', 'unit', 'analogue', 'bus', true).map((value) => () => value),
  fc.integer({ min: -200, max: 200 }).map((value) => () => value),
)

describe('an edited session is read where it changed', () => {
  it('with the answer of the whole file, whatever was put wherever', () => {
    const places = placesIn(demo)
    let taken = 0
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...places), replacement), { minLength: 1, maxLength: 2 }),
        (edits) => {
          const edited = edits.reduce<unknown>((session, [place, by]) => {
            try {
              return replaced(session, place, by)
            } catch (error) {
              // An earlier edit took away what the later one leads through.
              if (error instanceof TypeError) return session
              throw error
            }
          }, demo)
          if (typeof edited !== 'object' || edited === null) return
          const reading = readEdited(demo, edited as Session)
          if (reading.ok) taken++
          expect(reading).toEqual(wholly(edited as Session))
        },
      ),
      { numRuns: runs(400), seed: 22 },
    )
    expect(taken).toBeGreaterThan(runs(40))
  })

  it.each<[string, (session: Session) => Session]>([
    ['a gain', (session) => applyChanges(session, [{ strip: 'cello', stage: 'c3', setting: 'gain', to: 30 }])],
    ['a strip copied', (session) => copyStrip(session, session.strips[0]?.id ?? '')],
    ['a strip removed', (session) => removeStrip(session, session.strips[0]?.id ?? '')],
    ['a bus', (session) => addBus(session, 'stream')],
    [
      'a source',
      (session) => editGear(session, 'cello', 'sound-source', (cello) => ({ ...cello, name: 'Cello, solo' })),
    ],
    ['a name', (session) => ({ ...session, name: 'Ebb' })],
  ])('%s: as the whole file, and what was not touched is the same object', (_, edit) => {
    const edited = edit(demo)
    const reading = readEdited(demo, edited)
    expect(reading).toEqual(wholly(edited))
    if (!reading.ok) throw new Error('refused')
    for (const part of ['gear', 'strips'] as const)
      for (const item of edited[part])
        if ((demo[part] as readonly unknown[]).includes(item) && item.name !== 'Cello')
          expect(reading.session[part]).toContain(item)
  })

  it('a device that changed is held against the settings of every strip that names it', () => {
    const [microphoneInput] = demo.gear.flatMap((item) => (item.kind === 'interface' ? [item] : []))
    if (!microphoneInput) throw new Error('no interface')
    const edited = editGear(demo, microphoneInput.id, 'interface', (unit) => ({
      ...unit,
      inputs: unit.inputs.map((input) => (input.type === 'mic' ? withSpec(input, 'gainMax', 5) : input)),
    }))
    const reading = readEdited(demo, edited)
    expect(reading).toMatchObject({ ok: false })
    expect(reading).toEqual(wholly(edited))
  })

  it('an edit of a large session does not read what it left alone', () => {
    const edited = { ...intoBusses, name: 'Ebb' }
    const reading = readEdited(intoBusses, edited)
    expect(reading.ok && reading.session.strips.every((strip, i) => strip === intoBusses.strips[i])).toBe(true)
  })
})
