/** The gesture under which edits are made now: a key held down, a text being typed. All edits of one are one step of undo. */
let current: string | null = null

export const currentGesture = () => current

export function inGesture<T>(name: string, edit: () => T): T {
  const before = current
  current = name
  try {
    return edit()
  } finally {
    current = before
  }
}
