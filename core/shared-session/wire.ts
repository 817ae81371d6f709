import { concatBytes } from '@noble/ciphers/utils.js'
import type { StreamOut } from '../relay/stream'

/** Sends bytes to a member, 0 for all; the order is kept. */
export type Send = (to: number, bytes: Uint8Array) => void

/** Seals a message and sends it, in parts where it is long. */
export function sendOn(send: Send, to: number, kind: number, stream: StreamOut, message: unknown): void {
  for (const part of stream.seal(message)) send(to, concatBytes(new Uint8Array([kind]), part))
}
