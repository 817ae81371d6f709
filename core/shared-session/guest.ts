import { bytesToHex, concatBytes, randomBytes } from '@noble/ciphers/utils.js'
import { readSession } from '../files/read'
import { StreamIn, StreamOut } from '../relay/stream'
import type { Session } from '../session'
import type { Live } from './live'
import type { FromGuest, FromLeader, Hello } from './messages'
import { PROTOCOL, STREAM, fromLeader } from './messages'
import type { Met } from './met'
import { join } from './met'
import type { Member, Presence, Role } from './presence'
import { changesBetween, withChanges } from './revisions'
import type { Send } from './wire'
import { sendOn } from './wire'

/** This device’s copy of the session, as the room sees it. */
export interface GuestHost {
  /** `null` until the first welcome. */
  session: () => Session | null
  /** The session of the room came: for the first time, or with what is changed here on top of it. */
  open: (session: Session) => void
  /** A change of another device, or what becomes of one’s own. */
  takeIn: (label: string, session: Session) => void
  preview: (session: Session | null) => void
  log: (entries: unknown[], isWhole: boolean) => void
  at: () => Presence | null
}

/** What the guest is told of. */
export interface GuestNews {
  /** Connected with the opener, or not. */
  joined: (isJoined: boolean) => void
  role: (role: Role) => void
  members: (members: Member[]) => void
  /** What was changed here and elsewhere at once, and what stands now; `again` sets it to what was set here after all. */
  met: (met: Met[], mine: { base: Session; session: Session }) => void
  /** A change that was not taken, and why. */
  refused: (why: string) => void
  live: (shown: Live) => void
  away: (isAway: boolean) => void
  ended: () => void
  /** All that was changed here has come to the opener. */
  settled: (isSettled: boolean) => void
}

/** A change on its way: the session as it was sent, with what came since below it. */
interface Sent {
  id: number
  base: Session
  session: Session
}

/** Frames to all that come before the welcome is whole. */
const MOST_EARLY = 1000
/** Frames in a row that did not open: then a message is missing, and the guest greets anew. */
const MOST_REFUSED = 8

/**
 * A guest’s end of a room. It changes its own copy at once and sends what it changed with the revision that was made on; what comes
 * back stands below what it has changed since.
 */
export class GuestRoom {
  private name = ''
  private leader = 0
  private you = 0
  private in: StreamIn | null = null
  private all: StreamIn | null = null
  private out: StreamOut | null = null
  private early: Uint8Array[] = []
  private refusals = 0
  /** The opener’s session, as far as it is known here. */
  private confirmed: Session | null = null
  private revision = 0
  private sent: Sent | null = null
  private count = 0
  private logCount = 0
  private readonly logs = new Map<number, (why: string | null | undefined) => void>()
  private pendingMet: Met[] = []

  constructor(
    private readonly key: Uint8Array,
    private readonly send: Send,
    private readonly host: GuestHost,
    private readonly news: GuestNews,
    private readonly ownName: string,
  ) {}

  /** Goes on with a copy that was kept: the opener’s session as it was last known here. */
  resume(confirmed: Session): void {
    this.confirmed = confirmed
  }

  /** The opener’s session as it is known here: what a copy that is kept starts from. */
  get known(): Session | null {
    return this.confirmed
  }

  get isJoined(): boolean {
    return this.out !== null
  }

  /** Connected, or somebody came: asks for the session. Only the opener answers. */
  greet(): void {
    this.lose()
    this.name = bytesToHex(randomBytes(16))
    this.in = new StreamIn(this.key, this.name)
    const message = { protocol: PROTOCOL, guest: this.name } satisfies Hello
    for (const part of new StreamOut(this.key, 'hello').seal(message))
      this.send(0, concatBytes(new Uint8Array([STREAM.hello]), part))
  }

  /** A member came: who waits for the opener asks again. */
  came(): void {
    if (!this.isJoined) this.greet()
  }

  left(member: number): void {
    if (member === this.leader) this.lose()
  }

  /** The connection is gone, with the relay or with the opener. What is changed from here on is merged later. */
  lose(): void {
    const was = this.isJoined
    this.in = this.all = this.out = null
    this.leader = 0
    this.early = []
    this.sent = null
    for (const done of this.logs.values()) done(undefined)
    this.logs.clear()
    this.answering.clear()
    if (!was) return
    this.host.preview(null)
    this.news.joined(false)
  }

  received(from: number, bytes: Uint8Array): void {
    const sealed = bytes.subarray(1)
    if (bytes[0] === STREAM.toGuest && this.in) this.take(from, this.in, sealed)
    else if (bytes[0] === STREAM.toAll) this.fromAll(from, sealed)
  }

  private fromAll(from: number, sealed: Uint8Array): void {
    if (this.all && from === this.leader) this.take(from, this.all, sealed)
    else if (this.in && this.early.length < MOST_EARLY) this.early.push(sealed)
  }

  private take(from: number, stream: StreamIn, sealed: Uint8Array): void {
    const taken = stream.take(sealed)
    if (taken.state === 'part') return
    const message = taken.state === 'whole' ? fromLeader.safeParse(taken.message) : null
    if (!message?.success) {
      this.refusals++
      if (this.isJoined && this.refusals >= MOST_REFUSED) this.greet()
      return
    }
    this.refusals = 0
    if (message.data.type === 'welcome') this.welcomed(from, message.data)
    else this.hear(message.data)
  }

  private welcomed(from: number, message: Extract<FromLeader, { type: 'welcome' }>): void {
    const session = this.read(message.session)
    if (this.isJoined || !session) return
    if (message.protocol !== PROTOCOL)
      return this.news.refused('The devices run different versions of Remetra. Reload the page on both.')
    this.leader = from
    this.you = message.you
    this.all = new StreamIn(this.key, message.leader, message.next)
    this.out = new StreamOut(this.key, message.stream)
    this.tell({ type: 'ready', name: this.ownName })
    const at = this.host.at()
    if (at) this.tell({ type: 'at', at })
    this.news.role(message.role)
    this.news.away(message.isAway)
    this.news.joined(true)
    this.begin(session, message.revision)
    const { early } = this
    this.early = []
    for (const sealed of early) this.fromAll(from, sealed)
  }

  private read(raw: unknown): Session | null {
    const reading = readSession(raw)
    if (reading.ok) return reading.session
    this.news.refused(reading.faults[0]?.message ?? 'What the other device sent is no session.')
    return null
  }

  /** The opener’s session as it stands now; what was changed here meanwhile is merged into it and sent. */
  private begin(session: Session, revision: number): void {
    const [base, mine] = [this.confirmed, this.host.session()]
    this.confirmed = session
    this.revision = revision
    this.sent = null
    const joined = base && mine ? join(base, mine, session) : null
    if (joined && !joined.ok)
      this.news.refused(`What was changed here meanwhile does not fit the session now. ${joined.why}`)
    this.host.open(joined?.ok ? joined.session : session)
    if (base && mine && joined?.ok && joined.met.length > 0) {
      this.pendingMet = joined.met
      this.news.met(joined.met, { base, session: mine })
    }
    this.propose('Changed meanwhile')
  }

  private hear(message: Exclude<FromLeader, { type: 'welcome' }>): void {
    if (message.type === 'change') this.follow(message)
    else if (message.type === 'whole') {
      const session = this.read(message.session)
      if (session) this.begin(session, message.revision)
    } else if (message.type === 'answer') this.answered(message)
    else if (message.type === 'preview') this.previewed(message)
    else if (message.type === 'log') this.host.log(message.entries, message.isWhole)
    else if (message.type === 'logged') {
      this.logs.get(message.id)?.(message.why)
      this.logs.delete(message.id)
    } else if (message.type === 'role') this.news.role(message.role)
    else if (message.type === 'members') this.news.members(message.members)
    else if (message.type === 'live') this.news.live(message.live)
    else if (message.type === 'away') this.news.away(message.isAway)
    else this.news.ended()
  }

  private follow({ revision, changes, by, answers, label }: Extract<FromLeader, { type: 'change' }>): void {
    const [known, mine] = [this.confirmed, this.host.session()]
    if (!known || !mine) return
    const next = revision === this.revision + 1 ? withChanges(known, changes) : null
    if (!next?.ok) return this.tell({ type: 'again' })
    this.confirmed = next.session
    this.revision = revision
    const isOwn = by === this.you && answers === this.sent?.id
    // What was sent is in it now; only what was changed since stands on top.
    const base = isOwn && this.sent ? this.sent.session : known
    if (isOwn) this.sent = null
    else if (this.sent) this.sent = { ...this.sent, session: rebased(known, this.sent.session, next.session) }
    const merged = rebased(base, mine, next.session)
    if (merged !== mine) this.host.takeIn(label, merged)
    if (isOwn) this.propose(label)
  }

  private answered({ id, why, met }: Extract<FromLeader, { type: 'answer' }>): void {
    const { sent } = this
    if (sent && sent.id === id) this.drop(sent)
    if (why !== null) this.news.refused(why)
    if (met.length > 0) {
      const mine = this.answering.get(id)
      if (mine) this.news.met(met, mine)
    }
    this.answering.delete(id)
    this.propose('Change')
  }
  /** What was sent, until its answer: to be set after all where it met another change. */
  private readonly answering = new Map<number, { base: Session; session: Session }>()

  /** It was not taken, or changed nothing: what was changed here since stays. */
  private drop(sent: Sent): void {
    this.sent = null
    const [known, mine] = [this.confirmed, this.host.session()]
    if (!known || !mine) return
    const kept = rebased(sent.session, mine, known)
    if (kept !== mine) this.host.takeIn('Not taken', kept)
  }

  private previewed({ by, base, changes }: Extract<FromLeader, { type: 'preview' }>): void {
    if (by === this.you) return
    const shown = changes && this.confirmed && base === this.revision ? withChanges(this.confirmed, changes) : null
    this.host.preview(shown?.ok ? shown.session : null)
  }

  /** Sends what is changed here, one message at a time: what changes meanwhile goes with the next, together. */
  propose(label: string): void {
    const [known, mine] = [this.confirmed, this.host.session()]
    if (!known || !mine) return
    const changes = changesBetween(known, mine)
    this.news.settled(changes.length === 0)
    if (!this.out || this.sent || changes.length === 0) return
    this.sent = { id: ++this.count, base: known, session: mine }
    this.answering.set(this.sent.id, { base: known, session: mine })
    const met = this.pendingMet
    this.pendingMet = []
    this.tell({ type: 'propose', id: this.sent.id, base: this.revision, label: label.slice(0, 300), changes, met })
  }

  /** This device drags; `null` when it is over. */
  drags(draft: Session | null): void {
    if (this.out && this.confirmed)
      this.tell({ type: 'preview', base: this.revision, changes: draft && changesBetween(this.confirmed, draft) })
  }

  moved(): void {
    const at = this.host.at()
    if (this.out && at) this.tell({ type: 'at', at })
  }

  restartPassage(): void {
    if (this.out) this.tell({ type: 'passage' })
  }

  /** Entries for the opener’s log. @returns why they were not added, in words; `undefined` where nobody is there to take them */
  async addToLog(entries: unknown[]): Promise<string | null | undefined> {
    if (!this.out) return undefined
    const id = ++this.logCount
    const done = new Promise<string | null | undefined>((resolve) => this.logs.set(id, resolve))
    this.tell({ type: 'log', id, entries })
    return done
  }

  private tell(message: FromGuest): void {
    if (this.out) sendOn(this.send, this.leader, STREAM.toLeader, this.out, message)
  }
}

/** One’s own changes on top of a later session; where both changed the same thing, the later session’s stands. */
function rebased(base: Session, mine: Session, theirs: Session): Session {
  const joined = join(base, mine, theirs)
  return joined.ok ? joined.session : theirs
}
