/** Devices in one room, the opener among them. */
export const MOST_MEMBERS = 8
/** Rooms that one server process keeps at once. */
export const MOST_ROOMS = 64
/** Largest message, bytes, sealed and framed. */
export const MOST_BYTES = 256 * 1024
/** Messages that a member may send a second, on average and at once. */
export const MOST_A_SECOND = 100
/** A member that does not take what it is sent is dropped when so much waits for it, bytes. */
export const MOST_WAITING = 8 * 1024 * 1024
/** A member says that it is there at least so often, ms. */
export const PULSE = 5000
/** Who is not heard for that long is taken to be gone, ms. */
export const SILENT_AFTER = 16_000
