import { phantomUses } from '../chain/phantom'
import { gearById, resolveStrip } from '../chain/resolve'
import type { Change, Draft, Finding, Mend, Session } from '../session'
import { applyChanges, isStructure } from '../session'
import type { Appraisal, Appraised } from './appraise'
import { appraiseStrip } from './appraise'

/**
 * A finding with the first of its mends that keeps its word: applied to the session and evaluated, the finding is gone,
 * and nothing that would spoil a take or harm gear is new on any strip that the change can reach. Where none holds, what
 * to do stays a hand's work, in words.
 *
 * The mends are tried when the action or the changes are first looked at: while a gain is dragged nobody does, and trying
 * takes many times as long as finding.
 */
export function settled(session: Session, before: Appraisal, own: Appraised, draft: Draft): Finding {
  const { mends, cures: _, ...finding } = draft
  if (!mends) return finding
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
  const after = reappraised(session, changed, before, changes)
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

/** The strips that a change can reach, evaluated anew: those that it touches, and those that share a unit or a bank with them. */
function reappraised(session: Session, changed: Session, before: Appraisal, changes: readonly Change[]): Appraised[] {
  const gear = gearById(changed)
  const touched = changed.strips.filter((strip, i) => strip !== session.strips[i])
  if (!changes.some(reachesOthers)) {
    return touched.map((strip) => appraiseStrip(changed, strip, resolveStrip(strip, gear), before.phantom))
  }
  // Channels of one desk share its banks.
  const unitOf = (id: string) => {
    const box = gear.get(id)
    return box?.kind === 'desk-channel' ? (box.desk ?? id) : id
  }
  const units = new Set(touched.flatMap((strip) => strip.stages.map((stage) => unitOf(stage.gear))))
  const resolved = changed.strips.map((strip) => resolveStrip(strip, gear))
  const phantom = phantomUses(changed, resolved)
  return changed.strips.flatMap((strip, i) =>
    strip.stages.some((stage) => units.has(unitOf(stage.gear)))
      ? [appraiseStrip(changed, strip, resolved[i] ?? [], phantom)]
      : [],
  )
}

const reachesOthers = (change: Change) => isStructure(change) || change.setting === 'phantom'
