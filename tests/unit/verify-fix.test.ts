import { describe, expect, it } from 'vitest'
import type { Draft } from '#core/checks/finding'
import type { Change } from '#core/edits'
import type { Appraised } from '#core/evaluation/appraise'
import { appraise } from '#core/evaluation/appraise'
import { evaluateSession, evaluating } from '#core/evaluation/evaluate-session'
import type { Steps } from '#core/evaluation/steps'
import { proving, settled } from '#core/evaluation/verify-fix'
import type { Session } from '#core/session'
import { demoSession } from '#demo/index'

const session = demoSession()
/** The narrator by itself: nothing that a gain could drive stands behind it. */
const alone = { ...session, strips: session.strips.slice(0, 1).map((strip) => ({ ...strip, feeds: [] })) }

const gain = (to: number) => ({ strip: 'narrator', stage: 'n3', setting: 'gain', to }) as unknown as Change
const fix = (...changes: Change[]) => ({ action: `Fix by ${changes.length}.`, changes })
/** What is offered of a finding whose fixes are these. */
function offered(...given: Parameters<typeof found>) {
  const { action, changes } = found(...given)
  return { action, changes }
}
function found(draft: Partial<Draft>, fixes: ReturnType<typeof fix>[], of: Session = session) {
  const before = appraise(of)
  const own = before.strips.find(({ id }) => id === 'narrator') as Appraised
  const offTarget = own.drafts.find(({ code }) => code === 'target-missed') as Draft
  const { cures: _, ...rest } = offTarget
  const whole = { ...rest, action: 'By hand.', fixes: () => fixes, ...draft }
  return settled(of, before, own, whole)
}
/** The gain of another strip. */
const CELLO = { strip: 'cello', stage: session.strips.find(({ id }) => id === 'cello')?.stages[2]?.id }
const BY_HAND = { action: 'By hand.', changes: undefined }
/** A finding that no change of this session brings back. */
const gone = { code: 'off-axis', stage: 'n2' } as Partial<Draft>

describe('a fix is tried before it is offered', () => {
  it('one that does what it says, with its own words', () => {
    expect(offered({}, [fix(gain(39))])).toEqual({ action: 'Fix by 1.', changes: [gain(39)] })
  })
  it('one that leaves the finding is not', () => {
    expect(offered({}, [fix(gain(36))])).toEqual(BY_HAND)
  })
  it('nor one that changes nothing', () => {
    expect(offered(gone, [fix()])).toEqual(BY_HAND)
  })
  it('nor one that swaps the finding for another on its strip: the converter clips', () => {
    expect(offered(gone, [fix(gain(60))])).toEqual(BY_HAND)
  })
  it('nor one after which a microphone has no 48 V', () => {
    const off = (at: object) => ({ ...gain(0), ...at, setting: 'phantom', to: false }) as Change
    expect(offered(gone, [fix(off({}), off(CELLO))])).toEqual(BY_HAND)
  })
  it('nor one that harms another strip: the cello clips', () => {
    expect(offered(gone, [fix(gain(39), { ...gain(60), ...CELLO } as Change)])).toEqual(BY_HAND)
  })
  it('nor one that leaves the surge no room, though the peak still has some', () => {
    // Peak −19.1 dBFS at 35 dB, surge 6 dB: at 50 dB the peak is at −4.1 and the surge at +1.9.
    expect(offered(gone, [fix(gain(50))], alone)).toEqual(BY_HAND)
    expect(offered(gone, [fix(gain(44))], alone)).toMatchObject({ changes: [gain(44)] })
  })
  it('nor one that leaves what has to be gone besides', () => {
    expect(offered({ ...gone, cures: ['target-missed'] }, [fix(gain(36))])).toEqual(BY_HAND)
    expect(offered({ ...gone, cures: ['target-missed'] }, [fix(gain(39))])).toMatchObject({ changes: [gain(39)] })
  })
  it('of several the first that holds', () => {
    expect(offered({}, [fix(gain(60)), fix(gain(36), gain(39)), fix(gain(38))])).toEqual({
      action: 'Fix by 2.',
      changes: [gain(36), gain(39)],
    })
  })
})

describe('work in slices', () => {
  /** How often it pauses, and what it comes to. */
  function walked<T>(steps: Steps<T>) {
    for (let pauses = 0; ; pauses++) {
      const step = steps.next()
      if (step.done) return { pauses, value: step.value }
    }
  }

  it('evaluates the same as at once, with a pause behind every strip, walked and judged', () => {
    const { pauses, value } = walked(evaluating(null, session))
    expect(pauses).toBe(2 * session.strips.length)
    expect(JSON.stringify(value.evaluation)).toBe(JSON.stringify(evaluateSession(session)))
  })
  it('goes on from an evaluation with what did not change', () => {
    const first = walked(evaluating(null, session)).value
    const { value } = walked(evaluating(first, { ...session, notes: 'Another' }))
    expect(value.evaluation.strips[0]?.points).toBe(first.evaluation.strips[0]?.points)
  })
  it('tries fixes once: what was proven in slices is not tried again when it is looked at', () => {
    let tried = 0
    const fixes = [fix(gain(60)), fix(gain(39))].map((each) => ({
      ...each,
      get changes() {
        tried++
        return each.changes
      },
    }))
    const finding = found({}, fixes)
    expect(walked(proving(finding)).pauses).toBeGreaterThan(1)
    const before = tried
    expect(before).toBe(2)
    expect(walked(proving(finding)).pauses).toBe(0)
    expect(finding.changes).toEqual([gain(39)])
    // Looked at, not tried again.
    expect(tried).toBe(before + 1)
  })
})
