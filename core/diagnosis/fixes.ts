import { raisesSurge } from '../chain/reserve'
import type { Session } from '../session'
import type { CauseId } from './causes'
import { causeOf } from './causes'
import type { FixChange } from './fix-change'
import { applyFix } from './fix-change'
import { SessionView } from './view'
import type { DiagnosisView } from './view'

/** How to fix a cause. */
export interface Fix {
  says: string
  /** The session with it: tried, so that the cause is gone and nothing that spoils a take is new. Left out for what a hand does. */
  changes?: readonly FixChange[]
  caution?: string
  /** What to look at once more. */
  after: string
}

/**
 * The first fix of a cause that keeps its word: the session no longer shows the cause, no stop is new on any strip, no
 * surge loses the room it has, and nothing is turned up while something clips, unless that is cured and the strip gets no
 * louder by it. Where none does, or the session cannot show it, what a hand does.
 */
export function fixOf(view: DiagnosisView, id: CauseId): Fix {
  const { fixes, present, after, caution, ...cause } = causeOf(id)
  const byHand = cause.byHandIn?.(view) ?? cause.byHand
  const rest = { after, ...(caution && { caution }) }
  if (!present?.(view)) return { says: byHand, ...rest }
  const holding = fixes?.(view).find(({ changes }) => keepsItsWord(view, id, changes))
  return holding ? { says: holding.says, changes: holding.changes, ...rest } : { says: byHand, ...rest }
}

export function keepsItsWord(view: DiagnosisView, id: CauseId, changes: readonly FixChange[]): boolean {
  if (changes.length === 0) return false
  const after = new SessionView(applyFix(view.session, changes))
  const own = after.strips.find(({ strip }) => strip.id === view.strip.id)
  if (own && clips(view) && turnsUp(view.session, changes) && (clips(own) || isLouder(view, own))) return false
  const { present, cured } = causeOf(id)
  return (
    own !== undefined &&
    present?.(own) === false &&
    (cured?.(own) ?? true) &&
    stopsOf(after).every((stop) => stopsOf(view.all).includes(stop)) &&
    after.strips.every(({ strip, points }) => {
      const before = view.all.strips.find((each) => each.strip.id === strip.id)
      return !raisesSurge(before?.points ?? [], points)
    })
  )
}

const stopsOf = ({ findings }: SessionView): string[] =>
  [...findings].flatMap(([strip, found]) =>
    found.filter(({ severity }) => severity === 'stop').map(({ code, stage }) => `${strip} ${code} ${stage}`),
  )

/** A step up that nobody minds at the end of a strip, dB (common practice, no source). */
const NO_LOUDER = 1
const isLouder = (before: DiagnosisView, after: DiagnosisView): boolean =>
  (after.points.at(-1)?.average ?? 0) > (before.points.at(-1)?.average ?? 0) + NO_LOUDER

const clips = ({ points }: DiagnosisView) => points.some(({ clipped }) => clipped)

/** Whether a gain ends up higher than it stands; turning one down for it does not make that good while something clips. */
function turnsUp(session: Session, changes: readonly FixChange[]): boolean {
  return changes.some((change) => {
    if ('do' in change) return change.do === 'feed' && (change.set.gain ?? -Infinity) > sendOf(session, change)
    if (change.setting !== 'gain' && change.setting !== 'fader') return false
    const stage = session.strips.find(({ id }) => id === change.strip)?.stages.find(({ id }) => id === change.stage)
    return Number(change.to) > Number(stage?.settings[change.setting] ?? Infinity)
  })
}

const sendOf = (session: Session, { strip, to }: { strip: string; to: string }): number =>
  session.strips.find(({ id }) => id === strip)?.feeds?.find((feed) => feed.to === to)?.gain ?? -Infinity
