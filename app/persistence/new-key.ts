/** A random key of 128 bits. `crypto.randomUUID` is missing where a page is served over plain http under a network name. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}
