import { MOST_A_SECOND, MOST_BYTES, MOST_MEMBERS, MOST_ROOMS } from './limits'

/** Why the relay closes a connection; the codes from 4000 on are those of an application (RFC 6455, 7.4.2). */
export const CLOSED = {
  roomFull: 4001,
  noRoomLeft: 4002,
  notUnderstood: 4003,
  tooMany: 4004,
  tooSlow: 4005,
  silent: 4006,
  /** Of the protocol: one message was over the bound. */
  tooBig: 1009,
  /** The server stops. */
  goingAway: 1001,
} as const

const WORDS: Record<number, string> = {
  [CLOSED.roomFull]: `${MOST_MEMBERS} devices are connected already. Disconnect one of them, then try again.`,
  [CLOSED.noRoomLeft]: `The server has ${MOST_ROOMS} shared sessions open, its maximum. End one of them, or try again later.`,
  [CLOSED.notUnderstood]: 'The server did not understand this device. Reload the page on all devices.',
  [CLOSED.tooMany]: `This device sent more than ${MOST_A_SECOND} messages a second.`,
  [CLOSED.tooSlow]: 'This device’s connection is too slow for what is sent to it.',
  [CLOSED.silent]: 'The server had not heard from this device for a while.',
  [CLOSED.tooBig]: `A message was larger than ${MOST_BYTES / 1024} kB.`,
  [CLOSED.goingAway]: 'The server stopped.',
}

/** The reason in words; `null` where the code says no more than that the connection is gone. */
export const closedBecause = (code: number): string | null => WORDS[code] ?? null
