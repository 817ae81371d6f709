import { xchacha20poly1305 } from '@noble/ciphers/chacha.js'
import { concatBytes, randomBytes, utf8ToBytes } from '@noble/ciphers/utils.js'

/** Bytes of a nonce; so many random ones never meet again. */
const NONCE = 24

/**
 * Seals bytes with a key (XChaCha20-Poly1305: RFC 8439 with the 192-bit nonce of draft-irtf-cfrg-xchacha-03). Needs no secure
 * context, unlike the browser’s own.
 * @param place what the message is and its number: the same bytes at another place do not open
 */
export function seal(key: Uint8Array, place: string, plain: Uint8Array): Uint8Array {
  const nonce = randomBytes(NONCE)
  return concatBytes(nonce, xchacha20poly1305(key, nonce, utf8ToBytes(place)).encrypt(plain))
}

/** @returns `null` where it was sealed with another key, for another place, or was changed */
export function unseal(key: Uint8Array, place: string, sealed: Uint8Array): Uint8Array | null {
  try {
    return xchacha20poly1305(key, sealed.subarray(0, NONCE), utf8ToBytes(place)).decrypt(sealed.subarray(NONCE))
  } catch (error) {
    // The library throws where there is no whole nonce and tag or where the tag does not fit, and only then.
    if (error instanceof Error) return null
    throw error
  }
}
