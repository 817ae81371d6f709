import { demoSession } from '#demo/index'
import { joinFrame, passFrame, readFromRelay } from '#core/relay/frames'
import type { Room } from '#core/relay/room-link'
import { newRoom } from '#core/relay/room-link'
import type { Session } from '#core/session'
import { GuestRoom } from '#core/shared-session/guest'
import { LeaderRoom } from '#core/shared-session/leader'
import type { Met } from '#core/shared-session/met'
import type { Member, Presence, Role } from '#core/shared-session/presence'
import type { Connection } from '../../server/relay/rooms'
import { Rooms } from '../../server/relay/rooms'

/** A network of one relay whose messages arrive when the test lets them: each connection in its own order. */
export class Net {
  now = 0
  readonly rooms = new Rooms(() => this.now)
  /** Messages under way, a queue for each direction of each connection. */
  private readonly queues: { deliver: () => void }[][] = []

  connect(hear: (bytes: Uint8Array) => void, closed: (code: number) => void) {
    const [up, down]: [{ deliver: () => void }[], { deliver: () => void }[]] = [[], []]
    this.queues.push(up, down)
    const connection: Connection = {
      send: (bytes) => void down.push({ deliver: () => hear(bytes.slice()) }),
      close: (code) => void down.push({ deliver: () => closed(code) }),
      waiting: () => 0,
    }
    this.rooms.opened(connection)
    return {
      send: (bytes: Uint8Array) => void up.push({ deliver: () => this.rooms.message(connection, bytes) }),
      /** The cable is pulled: what is under way is lost. */
      cut: () => {
        up.length = 0
        down.length = 0
        this.rooms.closed(connection)
      },
    }
  }

  /** Lets the first message of one queue arrive; `choose` gives a number from 0 to below its argument. */
  step(choose: (count: number) => number = () => 0): boolean {
    this.now += 50
    const waiting = this.queues.filter(({ length }) => length > 0)
    if (waiting.length === 0) return false
    waiting[choose(waiting.length)]?.shift()?.deliver()
    return true
  }

  /** Lets everything arrive, and what that leads to. */
  async settle(choose?: (count: number) => number): Promise<void> {
    for (let idle = 0; idle < 3; idle++) {
      while (this.step(choose)) idle = 0
      await Promise.resolve()
    }
  }
}

/** A device of a test, in a room over such a network: one’s copy of the session and what one was told. */
abstract class Device {
  session: Session | null = null
  preview: Session | null = null
  log: unknown[] = []
  at: Presence | null = null
  members: Member[] = []
  met: Met[] = []
  closed: number | null = null
  protected line: ReturnType<Net['connect']> | null = null

  constructor(
    readonly net: Net,
    readonly room: Room,
  ) {}

  connect(): void {
    this.closed = null
    this.line = this.net.connect(
      (bytes) => this.hear(bytes),
      (code) => {
        this.closed = code
        this.lost()
      },
    )
    this.line.send(joinFrame(this.room.id))
  }
  /** Sends raw bytes to the room. */
  pass = (to: number, bytes: Uint8Array) => this.line?.send(passFrame(to, bytes))
  raw = (bytes: Uint8Array) => this.line?.send(bytes)
  cut(): void {
    this.line?.cut()
    this.line = null
    this.lost()
  }
  /** Bytes that others sent, as they came. */
  heard: { from: number; bytes: Uint8Array }[] = []
  private hear(bytes: Uint8Array) {
    const message = readFromRelay(bytes)
    if (!message) throw new Error('The relay sent what it does not send.')
    if ('passed' in message) {
      this.heard.push({ from: message.from, bytes: message.passed })
      this.passed(message.from, message.passed)
    } else if ('joined' in message) this.joined()
    else if ('came' in message) this.came()
    else if ('left' in message) this.left(message.left)
  }
  abstract passed(from: number, bytes: Uint8Array): void
  abstract joined(): void
  abstract came(): void
  abstract left(member: number): void
  abstract lost(): void
}

export class Opener extends Device {
  readonly leader: LeaderRoom
  override session: Session
  refusals = 0
  restarts = 0

  constructor(net: Net, room = newRoom('/api/relay'), session = demoSession()) {
    super(net, room)
    this.session = session
    this.leader = new LeaderRoom(
      room.key,
      (to, bytes) => this.pass(to, bytes),
      {
        session: () => this.session,
        commit: (label, next) => {
          this.session = next
          this.leader.changed(label)
          return null
        },
        preview: (draft) => {
          this.preview = draft
        },
        log: async () => this.log,
        addToLog: async (entries) => {
          this.log.push(...entries)
          this.leader.logged(entries)
          return null
        },
        at: () => this.at,
        restartPassage: () => {
          this.restarts++
        },
      },
      {
        members: (members) => {
          this.members = members
        },
        met: (_, met) => {
          this.met = met
        },
        refused: (count) => {
          this.refusals = count
        },
      },
      'Recorder',
    )
  }
  edit(change: (session: Session) => Session): void {
    this.session = change(this.session)
    this.leader.changed('Edit')
  }
  passed = (from: number, bytes: Uint8Array) => this.leader.received(from, bytes)
  joined = () => this.leader.restarted()
  came = () => {}
  left = (member: number) => this.leader.left(member)
  lost = () => this.leader.restarted()
}

export class Guest extends Device {
  readonly guest: GuestRoom
  isJoined = false
  /** How often it was told that the opener is gone. */
  losses = 0
  isSettled = true
  role: Role = 'hands'
  isAway = false
  isEnded = false
  refused: string[] = []
  live: unknown[] = []
  mine: { base: Session; session: Session } | null = null

  constructor(opener: Opener, name = 'Phone') {
    super(opener.net, opener.room)
    this.guest = new GuestRoom(
      opener.room.key,
      (to, bytes) => this.pass(to, bytes),
      {
        session: () => this.session,
        open: (session) => {
          this.session = session
        },
        takeIn: (_, session) => {
          this.session = session
        },
        preview: (draft) => {
          this.preview = draft
        },
        log: (entries, isWhole) => {
          this.log = isWhole ? entries : [...this.log, ...entries]
        },
        at: () => this.at,
      },
      {
        joined: (is) => {
          this.isJoined = is
          if (!is) this.losses++
        },
        role: (role) => {
          this.role = role
        },
        members: (members) => {
          this.members = members
        },
        met: (met, mine) => {
          this.met = met
          this.mine = mine
        },
        refused: (why) => this.refused.push(why),
        live: (shown) => this.live.push(shown),
        away: (is) => {
          this.isAway = is
        },
        ended: () => {
          this.isEnded = true
        },
        settled: (is) => {
          this.isSettled = is
        },
      },
      name,
    )
  }
  edit(change: (session: Session) => Session): void {
    if (!this.session) throw new Error('No session yet.')
    this.session = change(this.session)
    this.guest.propose('Edit')
  }
  passed = (from: number, bytes: Uint8Array) => this.guest.received(from, bytes)
  joined = () => this.guest.greet()
  came = () => this.guest.came()
  left = (member: number) => this.guest.left(member)
  lost = () => this.guest.lose()
}

/** An opener and some guests, connected and settled. */
export async function openRoom(guests = 1, session = demoSession(), nameOf = (i: number) => `Phone ${i + 1}`) {
  const net = new Net()
  const opener = new Opener(net, newRoom('/api/relay'), session)
  opener.connect()
  await net.settle()
  const all = Array.from({ length: guests }, (_, i) => new Guest(opener, nameOf(i)))
  for (const guest of all) guest.connect()
  await net.settle()
  return { net, opener, guests: all, guest: all[0] as Guest }
}
