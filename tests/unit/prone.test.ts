import { describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { causeOf } from '#core/diagnosis/causes'
import { proneTo } from '#core/diagnosis/prone'
import { SessionView } from '#core/diagnosis/view'
import { applyChanges } from '#core/edits'

const view = new SessionView(demoSession())

describe('what a chain is prone to before anything is complained of', () => {
  it('rests on figures of the session, the likeliest first, each cause once', () => {
    const prone = proneTo(view, null)
    expect(prone.length).toBeGreaterThan(2)
    expect(new Set(prone.map(({ id }) => id)).size).toBe(prone.length)
    for (const each of prone) {
      expect(each.present || each.says.length > 0, each.id).toBe(true)
      expect(causeOf(each.id).symptoms[each.symptom]).toBeDefined()
    }
    expect(prone.some(({ says }) => says.some((words) => /\d/.test(words)))).toBe(true)
  })

  it('a fault that is set stands before one that is only likely', () => {
    // Both stand on one bank: it is on while either is.
    const off = applyChanges(
      demoSession(),
      ['narrator', 'cello'].map((strip) => ({
        strip,
        stage:
          demoSession()
            .strips.find(({ id }) => id === strip)
            ?.stages.at(-1)?.id ?? '',
        setting: 'phantom' as const,
        to: false,
      })),
    )
    const prone = proneTo(new SessionView(off), 'narrator')
    expect(prone[0]).toMatchObject({ id: 'phantom-missing', present: true })
    const firstLikely = prone.findIndex(({ present }) => !present)
    expect(prone.slice(firstLikely === -1 ? prone.length : firstLikely).every(({ present }) => !present)).toBe(true)
  })
})
