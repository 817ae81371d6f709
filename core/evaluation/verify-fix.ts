import { raisesSurge } from '../chain/reserve'
import type { Change } from '../edits'
import type { Draft, Finding, Fix } from '../checks/finding'
import type { Session } from '../session'
import { applyChanges, isStructure } from '../edits'
import type { Appraisal, Appraised } from './appraise'
import { appraisal } from './appraise'
import type { Steps } from './steps'
import { finished } from './steps'

/**
 * A finding with the first of its fixes that keeps its word: applied to the session and evaluated, the finding is gone,
 * and nothing that would spoil a take or harm gear is new on any strip that the change can reach. Where none holds, what
 * to do stays a hand's work, in words.
 *
 * The fixes are tried when the action or the changes are first looked at: while a gain is dragged nobody does, and trying
 * takes many times as long as finding.
 */
export const settled = (session: Session, before: Appraisal, own: Appraised, draft: Draft): Finding =>
  draft.fixes || typeof draft.action === 'function' ? new Settled(session, before, own, draft) : (draft as Finding)

/** One class for all of them: thousands stand in a large session, and accessors of their own would cost each more than finding it. */
class Settled implements Finding {
  readonly code
  readonly severity
  readonly stage
  readonly message
  readonly #session
  readonly #before
  readonly #own
  readonly #draft
  #tried: Partial<Fix> | undefined

  constructor(session: Session, before: Appraisal, own: Appraised, draft: Draft) {
    this.code = draft.code
    this.severity = draft.severity
    this.stage = draft.stage
    this.message = draft.message
    this.#session = session
    this.#before = before
    this.#own = own
    this.#draft = draft
  }

  get joint() {
    return this.#draft.joint
  }
  get action() {
    const { action } = this.#draft
    return this.#holding.action ?? (typeof action === 'function' ? action() : action)
  }
  get changes() {
    return this.#holding.changes
  }
  get #holding(): Partial<Fix> {
    return (this.#tried ??= finished(this.#firstHolding()))
  }

  /** Tries the fixes, unless somebody has looked before. */
  *proving(): Steps<void> {
    this.#tried ??= yield* this.#firstHolding()
  }
  *#firstHolding(): Steps<Partial<Fix>> {
    for (const fix of this.#draft.fixes?.() ?? [])
      if (yield* holding(this.#session, this.#before, this.#own, this.#draft, fix)) return fix
    return NONE
  }

  /** What goes into an answer. */
  toJSON(): Finding {
    const { code, severity, stage, message, action, changes, joint } = this
    return { code, severity, stage, message, action, ...(joint && { joint }), ...(changes && { changes }) }
  }
}

/** Tries the fixes of a finding, pausing between strips; looking at its action and changes costs nothing afterwards. */
export function* proving(finding: Finding): Steps<void> {
  if (finding instanceof Settled) yield* finding.proving()
}

/** No fix holds. */
const NONE: Partial<Fix> = {}

function* holding(session: Session, before: Appraisal, own: Appraised, draft: Draft, { changes }: Fix): Steps<boolean> {
  const changed = applyChanges(session, changes)
  const after = yield* reappraising(changed, before, changes)
  const fixed = after.find((strip) => strip.id === own.id)
  if (!fixed || fixed.drafts.some((each) => each.code === draft.code && each.stage === draft.stage)) return false
  if (draft.cures?.some((code) => fixed.drafts.some((each) => each.code === code))) return false
  return after.every((strip) => {
    const known = before.strips.find((each) => each.id === strip.id)
    return (
      strip.drafts.every((each) => !spoils(each) || known?.drafts.some((one) => isSame(one, each))) &&
      !raisesSurge(known?.points ?? [], strip.points, strip.driven)
    )
  })
}

/** What a fix may not bring about: a stop, or a joint that does not fit. */
const spoils = ({ severity, joint }: Draft) => severity === 'stop' || (severity === 'caution' && joint === true)
const isSame = (one: Draft, other: Draft) => one.code === other.code && one.stage === other.stage

/** The strips that a change can reach, evaluated anew: what it touches, what that feeds, and what shares a unit or a bank with it. */
function* reappraising(changed: Session, before: Appraisal, changes: readonly Change[]): Steps<readonly Appraised[]> {
  const after = yield* appraisal(changed, changes.some(reachesOthers) ? undefined : before)
  const known = new Set(before.strips)
  return after.strips.filter((strip) => !known.has(strip))
}

const reachesOthers = (change: Change) => isStructure(change) && change.do !== 'feed'
