/** What the broadcast extension of a WAV file says of the recording (EBU Tech 3285). Empty texts are left out. */
export interface Broadcast {
  description?: string
  originator?: string
  reference?: string
  /** Day and time of the recording, as they are written. */
  date?: string
  time?: string
  /** Frames from midnight to the file's first one. */
  timeReference: number
  version: number
  /** How it was coded and by what, a line for each step. */
  history?: string
}

/** Widths of the texts in order, then where the numbers and the history stand. */
const TEXTS = [
  ['description', 256],
  ['originator', 32],
  ['reference', 32],
  ['date', 10],
  ['time', 8],
] as const
const TIME_REFERENCE = 338
const VERSION = 346
const HISTORY = 602

/** Reads the body of a `bext` chunk. @returns `null` where it is too short to be one. */
export function readBroadcast(body: Uint8Array): Broadcast | null {
  if (body.length < HISTORY) return null
  const data = new DataView(body.buffer, body.byteOffset, body.byteLength)
  let at = 0
  const texts = TEXTS.map(([name, width]) => {
    const words = plainText(body.subarray(at, at + width))
    at += width
    return [name, words] as const
  })
  const history = plainText(body.subarray(HISTORY))
  return {
    ...Object.fromEntries(texts.filter(([, words]) => words !== '')),
    timeReference: Number(data.getBigUint64(TIME_REFERENCE, true)),
    version: data.getUint16(VERSION, true),
    ...(history !== '' && { history }),
  }
}

/** Up to the first zero; what is no printing character is left out. */
function plainText(bytes: Uint8Array): string {
  const end = bytes.indexOf(0)
  const letters = end < 0 ? bytes : bytes.subarray(0, end)
  return [...letters]
    .map((code) => (code === 10 || (code >= 32 && code < 127) || code >= 160 ? String.fromCharCode(code) : ''))
    .join('')
    .trim()
}
