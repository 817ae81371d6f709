import type { Session } from '../session'
import { join } from './met'

/** One change of this device: the session before and behind it. */
interface OwnStep {
  label: string
  before: Session
  after: Session
}

export type Undone = { ok: true; session: Session; label: string } | { ok: false; why: string }

/** As far back as undo goes, steps. */
const MOST = 200

/**
 * What this device changed in a session that others change too. Undo takes back just that, whatever others did since; where they
 * changed the same thing, nothing is taken back and that is said.
 */
export class OwnSteps {
  private done: OwnStep[] = []
  private undone: OwnStep[] = []
  private gesture: string | null = null

  get undoLabel(): string | null {
    return this.done.at(-1)?.label ?? null
  }
  get redoLabel(): string | null {
    return this.undone.at(-1)?.label ?? null
  }

  /** @param gesture changes of one gesture are one step */
  add(label: string, before: Session, after: Session, gesture: string | null = null): void {
    const last = this.done.at(-1)
    if (gesture !== null && gesture === this.gesture && last) last.after = after
    else this.done = [...this.done, { label, before, after }].slice(-MOST)
    this.gesture = gesture
    this.undone = []
  }

  /** What is dragged here, on top of what another device changed meanwhile. */
  rebase(base: Session, mine: Session, theirs: Session): Session {
    const joined = join(base, mine, theirs)
    return joined.ok ? joined.session : theirs
  }

  endGesture(): void {
    this.gesture = null
  }

  /** @returns the session without the last own change; `null` where there is none */
  undo(current: Session): Undone | null {
    return this.move(current, this.done, this.undone, 'undone', ({ before, after }) => [after, before])
  }

  /** @returns the session with it again */
  redo(current: Session): Undone | null {
    return this.move(current, this.undone, this.done, 'redone', ({ before, after }) => [before, after])
  }

  private move(
    current: Session,
    from: OwnStep[],
    to: OwnStep[],
    word: string,
    ends: (step: OwnStep) => [Session, Session],
  ): Undone | null {
    const step = from.at(-1)
    if (!step) return null
    this.gesture = null
    const joined = join(...ends(step), current)
    if (!joined.ok || joined.met.length > 0) {
      // It stays out of the way of the steps before it.
      from.pop()
      const [met] = joined.ok ? joined.met : []
      const what = met ? ` ${met.of}, ${met.what}: ${met.kept}.` : ''
      return {
        ok: false,
        why: `“${step.label}” was not ${word}: another device has changed the same thing since.${what}`,
      }
    }
    from.pop()
    to.push(step)
    return { ok: true, session: joined.session, label: step.label }
  }
}
