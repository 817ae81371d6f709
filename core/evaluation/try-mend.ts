import type { Change, Draft, Finding, Mend, Session } from '../session'
import { applyChanges, isStructure } from '../session'
import type { Appraisal, Appraised } from './appraise'
import { appraise } from './appraise'

/**
 * A finding with the first of its mends that keeps its word: applied to the session and evaluated, the finding is gone,
 * and nothing that would spoil a take or harm gear is new on any strip that the change can reach. Where none holds, what
 * to do stays a hand's work, in words.
 *
 * The mends are tried when the action or the changes are first looked at: while a gain is dragged nobody does, and trying
 * takes many times as long as finding.
 */
export function settled(session: Session, before: Appraisal, own: Appraised, draft: Draft): Finding {
  if (!draft.mends) return draft
  const { mends, cures: _, ...finding } = draft
  let holding: Partial<Mend> | undefined
  const tried = () => (holding ??= mends().find((mend) => holds(session, before, own, draft, mend)) ?? NONE)
  return {
    ...finding,
    get action() {
      return tried().action ?? finding.action
    },
    get changes() {
      return tried().changes
    },
  }
}

/** No mend holds. */
const NONE: Partial<Mend> = {}

function holds(session: Session, before: Appraisal, own: Appraised, draft: Draft, { changes }: Mend): boolean {
  if (changes.length === 0) return false
  const changed = applyChanges(session, changes)
  const after = reappraised(changed, before, changes)
  const mended = after.find((strip) => strip.id === own.id)
  if (!mended || mended.drafts.some((each) => each.code === draft.code && each.stage === draft.stage)) return false
  if (draft.cures?.some((code) => mended.drafts.some((each) => each.code === code))) return false
  return after.every((strip) => {
    const known = before.strips.find((each) => each.id === strip.id)?.drafts ?? []
    return strip.drafts.every((each) => !spoils(each) || known.some((one) => isSame(one, each)))
  })
}

/** What a mend may not bring about: a stop, or a joint that does not fit. */
const spoils = ({ severity, joint }: Draft) => severity === 'stop' || (severity === 'caution' && joint === true)
const isSame = (one: Draft, other: Draft) => one.code === other.code && one.stage === other.stage

/** The strips that a change can reach, evaluated anew: what it touches, what that feeds, and what shares a unit or a bank with it. */
function reappraised(changed: Session, before: Appraisal, changes: readonly Change[]): readonly Appraised[] {
  const after = appraise(changed, changes.some(reachesOthers) ? undefined : before)
  const known = new Set(before.strips)
  return after.strips.filter((strip) => !known.has(strip))
}

const reachesOthers = (change: Change) => isStructure(change) && change.do !== 'feed'
