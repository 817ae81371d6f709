import type { Room } from '#core/relay/room-link'
import { readRoomFragment, roomFragment } from '#core/relay/room-link'
import type { Session } from '#core/session'
import { readSession } from '#core/files'
import { OPENED_ROOM } from '~/stores/second-screen'

/**
 * The room of this tab, so that a reload goes back into it. Session storage belongs to the tab and ends with it; where it takes
 * nothing, a reload has to open the link again.
 */
const JOINED = 'remetra-joined-room'

function keep(name: string, value: unknown): void {
  try {
    sessionStorage.setItem(name, JSON.stringify(value))
  } catch (error) {
    if (!(error instanceof DOMException)) throw error
    // Full or blocked: nothing older must stand there for what is newer.
    drop(name)
  }
}
function drop(name: string): void {
  try {
    sessionStorage.removeItem(name)
  } catch (error) {
    if (!(error instanceof DOMException)) throw error
  }
}
function read(name: string): Record<string, unknown> | null {
  try {
    const found = JSON.parse(sessionStorage.getItem(name) ?? 'null') as unknown
    return typeof found === 'object' ? (found as Record<string, unknown> | null) : null
  } catch (error) {
    if (error instanceof DOMException || error instanceof SyntaxError) return null
    throw error
  }
}
const roomOf = (found: Record<string, unknown> | null): Room | null =>
  typeof found?.room === 'string' ? readRoomFragment(found.room) : null

/** The room that this tab opened, and the key of the session that is shared in it. */
export const keepOpened = (room: Room, key: string) => keep(OPENED_ROOM, { room: roomFragment(room), key })
export const dropOpened = () => drop(OPENED_ROOM)
export function openedRoom(): { room: Room; key: string } | null {
  const found = read(OPENED_ROOM)
  const room = roomOf(found)
  return room && typeof found?.key === 'string' ? { room, key: found.key } : null
}

/** The room that this tab joined, with the opener’s session as it was last known here, and as it stands here. */
export interface JoinedRoom {
  room: Room
  copy: { known: Session; mine: Session } | null
}
export const keepJoined = ({ room, copy }: JoinedRoom) => keep(JOINED, { room: roomFragment(room), ...copy })
export const dropJoined = () => drop(JOINED)
export function joinedRoom(): JoinedRoom | null {
  const found = read(JOINED)
  const room = roomOf(found)
  if (!room) return null
  const [known, mine] = [readSession(found?.known), readSession(found?.mine)]
  return { room, copy: known.ok && mine.ok ? { known: known.session, mine: mine.session } : null }
}
