import { bytesToHex, hexToBytes, randomBytes } from '@noble/ciphers/utils.js'
import { ROOM_ID_BYTES } from './frames'

/** Bytes of the key that seals a room’s messages. */
const KEY_BYTES = 32

/** A room: where it is, and what opens it. Whoever has this can join. */
export interface Room {
  /** The path of the relay that keeps it, one of several behind a proxy. */
  relay: string
  /** 128 random bits; the relay knows them. */
  id: Uint8Array
  /** 256 random bits; the relay never sees them. */
  key: Uint8Array
}

export const newRoom = (relay: string): Room => ({ relay, id: randomBytes(ROOM_ID_BYTES), key: randomBytes(KEY_BYTES) })

/** A relay’s path: the plain one, or with the name of one process behind it. */
export const RELAY_PATH = /^\/api\/relay(?:\/[a-z0-9-]{1,32})?$/

/** A room as it stands behind the # of a link, which no browser sends to a server. */
export function roomFragment({ relay, id, key }: Room): string {
  return `room=${relay.split('/')[3] ?? ''}.${bytesToHex(id)}.${bytesToHex(key)}`
}

/** @returns `null` where the fragment names no room */
export function readRoomFragment(fragment: string): Room | null {
  const found = /^#?room=([a-z0-9-]{0,32})\.([0-9a-f]{32})\.([0-9a-f]{64})$/.exec(fragment)
  if (!found) return null
  const [, name, id, key] = found as unknown as [string, string, string, string]
  return { relay: name ? `/api/relay/${name}` : '/api/relay', id: hexToBytes(id), key: hexToBytes(key) }
}
