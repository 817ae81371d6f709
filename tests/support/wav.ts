/** A plain WAV file with an extensible header that says which loudspeakers its channels are for. */
export function withChannelMask(plain: Uint8Array, mask: number): Uint8Array {
  const before = new DataView(plain.buffer, plain.byteOffset, plain.byteLength)
  const wav = new Uint8Array(plain.length + 24)
  wav.set(plain.subarray(0, 36))
  wav.set(plain.subarray(36), 60)
  const view = new DataView(wav.buffer)
  view.setUint32(4, before.getUint32(4, true) + 24, true)
  view.setUint32(16, 40, true)
  view.setUint16(20, 0xfffe, true)
  view.setUint16(36, 22, true)
  view.setUint16(38, before.getUint16(34, true), true)
  view.setUint32(40, mask, true)
  view.setUint16(44, before.getUint16(20, true), true)
  // The rest of the sub-format’s identifier is the same for all.
  wav.set([0, 0, 0, 0, 0x10, 0, 0x80, 0, 0, 0xaa, 0, 0x38, 0x9b, 0x71], 46)
  return wav
}

/** The file with a chunk before its samples. */
export function withChunk(plain: Uint8Array, name: string, body: Uint8Array, padded: boolean): Uint8Array {
  const size = 8 + body.length + (padded && body.length % 2 === 1 ? 1 : 0)
  const wav = new Uint8Array(plain.length + size)
  wav.set(plain.subarray(0, 36))
  wav.set(
    [...name].map((letter) => letter.charCodeAt(0)),
    36,
  )
  new DataView(wav.buffer).setUint32(40, body.length, true)
  wav.set(body, 44)
  wav.set(plain.subarray(36), 36 + size)
  return wav
}
