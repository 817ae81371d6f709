import { bytesToHex, randomBytes } from '@noble/ciphers/utils.js'
import { TO_ALL } from '../relay/frames'
import { StreamIn, StreamOut } from '../relay/stream'
import type { Session } from '../session'
import type { Live } from './live'
import type { FromGuest, FromLeader } from './messages'
import { PROTOCOL, STREAM, fromGuest, hello } from './messages'
import type { Met } from './met'
import { join } from './met'
import type { Member, Presence, Role } from './presence'
import { changesBetween, withChanges } from './revisions'
import type { Send } from './wire'
import { sendOn } from './wire'

/** Revisions of the session that changes of guests may start from; who is farther behind gets the whole. */
const MOST_REVISIONS = 100
/** The members of the room together, the opener among them. */
const OWN_NUMBER = 0

/** The opener’s session and log, as the room sees them. */
export interface LeaderHost {
  session: () => Session
  /** Takes a guest’s change in. @returns why not, in words */
  commit: (label: string, session: Session) => string | null
  /** A guest drags; `null` when it is over. */
  preview: (session: Session | null) => void
  /** Entries of the log so far, as they are stored. */
  log: () => Promise<unknown[]>
  /** Adds what a guest made. @returns why not, in words */
  addToLog: (entries: unknown[]) => Promise<string | null>
  at: () => Presence | null
  restartPassage: () => void
}

interface Guest {
  number: number
  stream: StreamIn
  out: StreamOut
  name: string | null
  role: Role
  at: Presence | null
}

/** What the opener is told of. */
export interface LeaderNews {
  members: (members: Member[]) => void
  /** A guest changed something meanwhile; what met. */
  met: (guest: string, met: Met[]) => void
  /** Messages that were not opened, or made no sense. */
  refused: (count: number) => void
}

/**
 * The opener’s end of a room: its session leads. Guests send changes with the revision they were made on; what meets is decided here,
 * and everybody gets the new revision.
 */
export class LeaderRoom {
  private readonly name = bytesToHex(randomBytes(16))
  private readonly toAll: StreamOut
  private readonly guests = new Map<number, Guest>()
  private readonly revisions = new Map<number, Session>()
  private revision = 1
  private refusals = 0
  private isAway = false
  private dragging: number | null = null
  /** What new guests may do. */
  newRole: Role = 'hands'

  constructor(
    private readonly key: Uint8Array,
    private readonly send: Send,
    private readonly host: LeaderHost,
    private readonly news: LeaderNews,
    private readonly ownName: string,
  ) {
    this.toAll = new StreamOut(key, this.name)
    this.revisions.set(this.revision, host.session())
  }

  /** Bytes that a member sent. */
  received(from: number, bytes: Uint8Array): void {
    const sealed = bytes.subarray(1)
    if (bytes[0] === STREAM.hello) return this.greet(from, sealed)
    const guest = this.guests.get(from)
    const taken = bytes[0] === STREAM.toLeader && guest ? guest.stream.take(sealed) : { state: 'refused' as const }
    if (taken.state === 'part') return
    const message = taken.state === 'whole' ? fromGuest.safeParse(taken.message) : null
    if (!guest || !message?.success) return this.refuse()
    this.answer(guest, message.data)
  }

  left(member: number): void {
    if (!this.guests.delete(member)) return
    if (this.dragging === member) this.endDrag()
    this.tellMembers()
  }

  /** Connected anew: numbers of members are others now. */
  restarted(): void {
    this.guests.clear()
    this.endDrag()
    this.tellMembers()
  }

  /** The opener’s session was changed, by whatever. */
  changed(label: string): void {
    // A guest’s change that is being taken in is told as such.
    if (!this.isDeciding) this.publish(label, OWN_NUMBER)
  }
  private isDeciding = false

  /** The opener drags; `null` when it is over. */
  previewed(draft: Session | null): void {
    this.catchUp()
    const base = this.current()
    this.broadcast({
      type: 'preview',
      by: OWN_NUMBER,
      base: this.revision,
      changes: draft && changesBetween(base, draft),
    })
  }

  logged(entries: unknown[]): void {
    this.broadcast({ type: 'log', entries, isWhole: false })
  }

  moved(): void {
    this.tellMembers()
  }

  /** What the inputs show. */
  shows(shown: Live): void {
    this.broadcast({ type: 'live', live: shown })
  }

  get hasGuests(): boolean {
    return [...this.guests.values()].some(({ name }) => name !== null)
  }

  setRole(member: number, role: Role): void {
    const guest = this.guests.get(member)
    if (!guest) return
    guest.role = role
    this.tell(guest, { type: 'role', role })
    this.tellMembers()
  }

  setAway(isAway: boolean): void {
    if (isAway === this.isAway) return
    this.isAway = isAway
    this.broadcast({ type: 'away', isAway })
  }

  end(): void {
    this.broadcast({ type: 'ended' })
  }

  /** The opener first. */
  get members(): Member[] {
    const there = [...this.guests.values()].filter(({ name }) => name !== null)
    return [
      { number: 255, name: this.ownName, role: 'leader', at: this.host.at() },
      ...there.map(({ number, name, role, at }) => ({ number, name: name as string, role, at })),
    ]
  }

  private current(): Session {
    return this.revisions.get(this.revision) as Session
  }

  private refuse(): void {
    this.news.refused(++this.refusals)
  }

  private greet(from: number, sealed: Uint8Array): void {
    const taken = new StreamIn(this.key, 'hello').take(sealed)
    const said = taken.state === 'whole' ? hello.safeParse(taken.message) : null
    if (!said?.success) return this.refuse()
    const stream = bytesToHex(randomBytes(16))
    const guest: Guest = {
      number: from,
      stream: new StreamIn(this.key, stream),
      out: new StreamOut(this.key, said.data.guest),
      name: null,
      role: this.newRole,
      at: null,
    }
    this.guests.set(from, guest)
    this.catchUp()
    this.tell(guest, {
      type: 'welcome',
      protocol: PROTOCOL,
      leader: this.name,
      stream,
      next: this.toAll.next,
      you: from,
      role: guest.role,
      revision: this.revision,
      session: this.current(),
      isAway: this.isAway,
    })
  }

  private answer(guest: Guest, message: FromGuest): void {
    if (message.type === 'ready') void this.admit(guest, message.name)
    else if (guest.name === null) this.refuse()
    else if (message.type === 'at') {
      guest.at = message.at
      this.tellMembers()
    } else if (message.type === 'again') this.sendWhole(guest)
    else if (message.type === 'passage') this.restartPassage(guest)
    else if (message.type === 'propose') this.decide(guest, message)
    else if (message.type === 'preview') this.drag(guest, message)
    else void this.takeLog(guest, message)
  }

  private async admit(guest: Guest, name: string): Promise<void> {
    guest.name = this.distinct(name)
    this.tellMembers()
    this.tell(guest, { type: 'log', entries: await this.host.log(), isWhole: true })
  }

  /** Two phones are told apart by a number. */
  private distinct(name: string): string {
    const taken = new Set(this.members.map((member) => member.name))
    if (!taken.has(name)) return name
    for (let n = 2; ; n++) if (!taken.has(`${name} ${n}`)) return `${name} ${n}`
  }

  private sendWhole(guest: Guest): void {
    this.tell(guest, { type: 'whole', revision: this.revision, session: this.current() })
  }

  private restartPassage({ role }: Guest): void {
    if (role === 'hands') this.host.restartPassage()
  }

  private decide(guest: Guest, { id, base, label, changes, met }: Extract<FromGuest, { type: 'propose' }>): void {
    if (guest.role === 'eyes')
      return this.tell(guest, { type: 'answer', id, why: 'This device may look, not change.', met: [] })
    this.catchUp()
    const from = this.revisions.get(base)
    // Too far behind, or of another life of this page: it merges anew with what stands now.
    if (!from) return this.sendWhole(guest)
    const joined = this.joined(from, changes)
    this.isDeciding = true
    const why = joined.ok ? this.host.commit(label, joined.session) : joined.why
    this.isDeciding = false
    if (why === null) this.publish(label, guest.number, id)
    if (met.length > 0) this.news.met(guest.name ?? '', met)
    this.tell(guest, { type: 'answer', id, why: why?.slice(0, 300) ?? null, met: joined.ok ? joined.met : [] })
  }

  private joined(from: Session, changes: Parameters<typeof withChanges>[1]) {
    const mine = withChanges(from, changes)
    return mine.ok ? join(from, mine.session, this.host.session()) : mine
  }

  private drag(guest: Guest, { base, changes }: Extract<FromGuest, { type: 'preview' }>): void {
    this.catchUp()
    const from = this.revisions.get(base)
    if (guest.role === 'eyes' || !from) return
    const joined = changes && this.joined(from, changes)
    this.dragging = joined?.ok ? guest.number : null
    this.host.preview(joined?.ok ? joined.session : null)
    this.broadcast({
      type: 'preview',
      by: guest.number,
      base: this.revision,
      changes: joined?.ok ? changesBetween(this.current(), joined.session) : null,
    })
  }

  private endDrag(): void {
    this.dragging = null
    this.host.preview(null)
  }

  private async takeLog(guest: Guest, { id, entries }: Extract<FromGuest, { type: 'log' }>): Promise<void> {
    const why = guest.role === 'eyes' ? 'This device may look, not change.' : await this.host.addToLog(entries)
    this.tell(guest, { type: 'logged', id, why: why?.slice(0, 300) ?? null })
  }

  /** What was changed before anybody looked is in the next revision. */
  private catchUp(): void {
    if (this.host.session() !== this.current()) this.publish('Change', OWN_NUMBER)
  }

  private publish(label: string, by: number, answers?: number): void {
    const [before, session] = [this.current(), this.host.session()]
    if (before === session) return
    const changes = changesBetween(before, session)
    this.revision++
    this.revisions.set(this.revision, session)
    this.revisions.delete(this.revision - MOST_REVISIONS)
    this.broadcast({
      type: 'change',
      revision: this.revision,
      label,
      changes,
      by,
      ...(answers !== undefined && { answers }),
    })
  }

  private tellMembers(): void {
    const { members } = this
    this.news.members(members)
    this.broadcast({ type: 'members', members })
  }

  private broadcast(message: FromLeader): void {
    if (this.guests.size > 0) sendOn(this.send, TO_ALL, STREAM.toAll, this.toAll, message)
  }

  private tell(guest: Guest, message: FromLeader): void {
    sendOn(this.send, guest.number, STREAM.toGuest, guest.out, message)
  }
}
