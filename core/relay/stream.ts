import { concatBytes, bytesToUtf8, utf8ToBytes } from '@noble/ciphers/utils.js'
import { seal, unseal } from './seal'

/** Bytes of a part of a message: with its seal and its frame well under what the relay passes on. */
const PART = 160 * 1024
/** The longest message that is put together from its parts, bytes. */
const MOST_WHOLE = 64 * 1024 * 1024

const MORE = 1
const LAST = 0

/**
 * One direction between two members, or from one to all: every message has its number, so that one that was left out, repeated,
 * moved or sealed by somebody without the key does not open. Long messages go in parts.
 */
export class StreamOut {
  constructor(
    private readonly key: Uint8Array,
    private readonly name: string,
  ) {}

  /** The number that the next part will have. */
  next = 0

  /** @returns the sealed parts, to be sent in this order */
  seal(message: unknown): Uint8Array[] {
    const bytes = utf8ToBytes(JSON.stringify(message))
    const parts: Uint8Array[] = []
    for (let at = 0; at === 0 || at < bytes.length; at += PART) {
      const isLast = at + PART >= bytes.length
      const part = concatBytes(new Uint8Array([isLast ? LAST : MORE]), bytes.subarray(at, at + PART))
      parts.push(seal(this.key, `${this.name} ${this.next++}`, part))
    }
    return parts
  }
}

/** What taking a sealed part came to. */
export type Taken =
  /** It does not open here: forged, changed, repeated, out of its order, or too long in all. */
  | { state: 'refused' }
  /** Its further parts are still to come. */
  | { state: 'part' }
  | { state: 'whole'; message: unknown }

/** The other end of it. */
export class StreamIn {
  private parts: Uint8Array[] = []
  private bytes = 0

  constructor(
    private readonly key: Uint8Array,
    private readonly name: string,
    private next = 0,
  ) {}

  take(sealed: Uint8Array): Taken {
    const plain = unseal(this.key, `${this.name} ${this.next}`, sealed)
    if (!plain) return { state: 'refused' }
    this.next++
    this.bytes += plain.length
    if (this.bytes > MOST_WHOLE) return this.dropped()
    this.parts.push(plain.subarray(1))
    if (plain[0] === MORE) return { state: 'part' }
    const text = bytesToUtf8(concatBytes(...this.parts))
    this.parts = []
    this.bytes = 0
    return parsed(text)
  }

  private dropped(): Taken {
    this.parts = []
    this.bytes = MOST_WHOLE
    return { state: 'refused' }
  }
}

function parsed(text: string): Taken {
  try {
    return { state: 'whole', message: JSON.parse(text) as unknown }
  } catch (error) {
    if (error instanceof SyntaxError) return { state: 'refused' }
    throw error
  }
}
