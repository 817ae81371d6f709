/**
 * What goes over the wire between a device and the relay: binary messages whose first byte says what they are. The relay reads
 * nothing behind that but numbers of members.
 *
 * | to the relay | bytes |
 * |---|---|
 * | 0 join | 16 bytes: the room’s id |
 * | 1 pass on | the recipient’s number, 0 for all others; then what is passed on |
 * | 2 pulse | – |
 *
 * | from the relay | bytes |
 * |---|---|
 * | 0 joined | one’s own number; then those of the others |
 * | 1 passed on | the sender’s number; then what is passed on |
 * | 2 pulse | –, the answer to a pulse |
 * | 3 came, 4 left | the member’s number |
 */
const CODES = { join: 0, pass: 1, pulse: 2, came: 3, left: 4 } as const

/** Bytes of a room’s id. */
export const ROOM_ID_BYTES = 16
/** The recipient that means all other members. */
export const TO_ALL = 0

export type ToRelay = { join: Uint8Array } | { pass: Uint8Array; to: number } | { pulse: true }

export type FromRelay =
  | { joined: number; others: number[] }
  | { passed: Uint8Array; from: number }
  | { pulse: true }
  | { came: number }
  | { left: number }

const framed = (head: readonly number[], rest: ArrayLike<number> = []): Uint8Array<ArrayBuffer> => {
  const bytes = new Uint8Array(head.length + rest.length)
  bytes.set(head)
  bytes.set(rest, head.length)
  return bytes
}

export const joinFrame = (room: Uint8Array) => framed([CODES.join], room)
export const passFrame = (to: number, payload: Uint8Array) => framed([CODES.pass, to], payload)
export const pulseFrame = () => framed([CODES.pulse])

/** @returns `null` where the bytes are no message to the relay */
export function readToRelay(bytes: Uint8Array): ToRelay | null {
  const [code, to] = bytes
  if (code === CODES.join && bytes.length === 1 + ROOM_ID_BYTES) return { join: bytes.slice(1) }
  if (code === CODES.pass && to !== undefined && bytes.length > 2) return { pass: bytes.subarray(2), to }
  if (code === CODES.pulse && bytes.length === 1) return { pulse: true }
  return null
}

export const joinedFrame = (you: number, others: readonly number[]) => framed([CODES.join, you], others)
export const passedFrame = (from: number, payload: Uint8Array) => framed([CODES.pass, from], payload)
export const cameFrame = (member: number) => framed([CODES.came, member])
export const leftFrame = (member: number) => framed([CODES.left, member])

/** @returns `null` where the bytes are no message of a relay */
export function readFromRelay(bytes: Uint8Array): FromRelay | null {
  const [code, member] = bytes
  if (code === CODES.pulse && bytes.length === 1) return { pulse: true }
  if (member === undefined || member === 0) return null
  if (code === CODES.join) return { joined: member, others: [...bytes.subarray(2)] }
  if (code === CODES.pass && bytes.length > 2) return { passed: bytes.subarray(2), from: member }
  if (bytes.length !== 2) return null
  if (code === CODES.came) return { came: member }
  if (code === CODES.left) return { left: member }
  return null
}
