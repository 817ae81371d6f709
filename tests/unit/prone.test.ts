import { describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import { causeOf } from '#core/diagnosis/causes'
import { diagnose } from '#core/diagnosis/diagnose'
import { causeOfFinding } from '#core/diagnosis/finding-cause'
import type { DiagnosisView } from '#core/diagnosis/view'
import type { Change } from '#core/edits'
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

describe('a finding and the cause that it is', () => {
  const loud = { strip: 'narrator', stage: 'n3', setting: 'gain', to: 60 } as unknown as Change
  const session = applyChanges(demoSession(), [loud])
  const view = new SessionView(session).strips.find(({ strip }) => strip.id === 'narrator') as DiagnosisView
  it('lead to one another: the finding to its cause and how that sounds, the ranked cause to the finding', () => {
    const coded = view.findings.filter(({ code }) => causeOfFinding(code) !== null)
    expect(coded.length).toBeGreaterThan(0)
    for (const { code } of coded) {
      const { id, symptom } = causeOfFinding(code) as NonNullable<ReturnType<typeof causeOfFinding>>
      expect(Math.max(...Object.values(causeOf(id).symptoms))).toBe(causeOf(id).symptoms[symptom])
      const ranked = diagnose(session, 'narrator', { symptoms: [symptom], answers: {} }).causes
      const shown = ranked.find((each) => each.id === id)?.finding
      expect(causeOf(id).codes, code).toContain(shown)
    }
  })
  it('a cause that the session does not show names no finding', () => {
    const [first] = diagnose(demoSession(), 'narrator', { symptoms: ['hum'], answers: {} }).causes
    expect(first).not.toHaveProperty('finding')
  })
})
