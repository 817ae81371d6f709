import { CLOSED } from '#core/relay/close-codes'
import { TO_ALL, cameFrame, joinedFrame, leftFrame, passedFrame, pulseFrame, readToRelay } from '#core/relay/frames'
import { MOST_A_SECOND, MOST_MEMBERS, MOST_ROOMS, MOST_WAITING, SILENT_AFTER } from '#core/relay/limits'
import { Rate } from '#core/relay/rate'

/** A device’s connection, as the relay needs it. */
export interface Connection {
  send: (bytes: Uint8Array) => void
  close: (code: number) => void
  /** Bytes that wait to be taken. */
  waiting: () => number
}

interface Member {
  connection: Connection
  rate: Rate
  heardAt: number
  room: string | null
  number: number
}

/** The members of a room by their numbers. */
type Room = Map<number, Member>

/**
 * The rooms of this process. They pass messages on and keep none; a room is gone with its last member. What is passed on is sealed:
 * nothing here can read it.
 */
export class Rooms {
  private readonly rooms = new Map<string, Room>()
  private readonly members = new Map<Connection, Member>()

  constructor(private readonly now: () => number = Date.now) {}

  /** Rooms and devices just now. */
  get count(): { rooms: number; members: number } {
    return { rooms: this.rooms.size, members: this.members.size }
  }

  opened(connection: Connection): void {
    const now = this.now()
    this.members.set(connection, {
      connection,
      rate: new Rate(MOST_A_SECOND, now),
      heardAt: now,
      room: null,
      number: 0,
    })
  }

  message(connection: Connection, bytes: Uint8Array): void {
    const member = this.members.get(connection)
    if (!member) return
    member.heardAt = this.now()
    if (!member.rate.takes(member.heardAt)) return this.close(member, CLOSED.tooMany)
    const message = readToRelay(bytes)
    if (message === null) this.close(member, CLOSED.notUnderstood)
    else if ('pulse' in message) this.send(member, pulseFrame())
    else if ('join' in message) this.join(member, Buffer.from(message.join).toString('hex'))
    else this.pass(member, message.to, message.pass)
  }

  closed(connection: Connection): void {
    const member = this.members.get(connection)
    if (!member) return
    this.members.delete(connection)
    const room = member.room === null ? undefined : this.rooms.get(member.room)
    if (!room || member.room === null) return
    room.delete(member.number)
    if (room.size === 0) this.rooms.delete(member.room)
    else for (const other of room.values()) this.send(other, leftFrame(member.number))
  }

  /** Drops who was not heard for long: a phone that fell asleep does not close its connection. */
  sweep(): void {
    for (const member of [...this.members.values()])
      if (this.now() - member.heardAt > SILENT_AFTER) this.close(member, CLOSED.silent)
  }

  closeAll(): void {
    for (const member of [...this.members.values()]) this.close(member, CLOSED.goingAway)
  }

  private join(member: Member, id: string): void {
    if (member.room !== null) return this.close(member, CLOSED.notUnderstood)
    const known = this.rooms.get(id)
    if (!known && this.rooms.size >= MOST_ROOMS) return this.close(member, CLOSED.noRoomLeft)
    const room: Room = known ?? new Map()
    if (room.size >= MOST_MEMBERS) return this.close(member, CLOSED.roomFull)
    this.rooms.set(id, room)
    const others = [...room.keys()]
    member.number = freeNumber(room)
    member.room = id
    room.set(member.number, member)
    this.send(member, joinedFrame(member.number, others))
    for (const other of others) this.send(room.get(other) as Member, cameFrame(member.number))
  }

  private pass(member: Member, to: number, payload: Uint8Array): void {
    const room = member.room === null ? undefined : this.rooms.get(member.room)
    if (!room) return this.close(member, CLOSED.notUnderstood)
    const frame = passedFrame(member.number, payload)
    for (const [number, other] of room)
      if (other !== member && (to === TO_ALL || to === number)) this.send(other, frame)
  }

  private send(member: Member, bytes: Uint8Array): void {
    if (member.connection.waiting() > MOST_WAITING) this.close(member, CLOSED.tooSlow)
    else member.connection.send(bytes)
  }

  private close(member: Member, code: number): void {
    member.connection.close(code)
    this.closed(member.connection)
  }
}

/** The lowest free number. One that a member had may be given again: all others were told that it left. */
function freeNumber(room: Room): number {
  for (let number = 1; ; number++) if (!room.has(number)) return number
}
