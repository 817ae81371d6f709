import { ref, shallowRef } from 'vue'
import type { Live } from '#core/shared-session/live'
import type { Member, Role } from '#core/shared-session/presence'

/**
 * What several places have to know of a session that is open on several devices. The rest of it – the connection, the merging – is
 * fetched when a session is shared or joined.
 */

/** The key under which a session of another device is open here. */
export const GUEST_KEY = 'guest'

/** How this device stands to the session on the screen. */
export interface SecondScreen {
  isOpener: boolean
  /** What a guest may do. */
  role: Role
  /** Connected with the relay, and a guest with the opener through it. */
  state: 'connecting' | 'joined' | 'alone' | 'lost' | 'ended'
  /** Why it is lost, in words. */
  why: string | null
  /** This device’s own number among the members. */
  you: number
  members: readonly Member[]
}

/** `null` while no session is shared. */
export const secondScreen = shallowRef<SecondScreen | null>(null)

/** Something that was changed here has not come to the opener yet. */
export const isUnsent = ref(false)

/** Takes what the inputs show to the other devices; `null` while nobody sees it. */
export const showLive = shallowRef<((shown: Live) => void) | null>(null)

/** What the opener’s inputs show, as it came; `null` while they show nothing. */
export const shownLive = shallowRef<Live | null>(null)

/** Asks the opener for new peaks. */
export const askForPassage = shallowRef<(() => void) | null>(null)

/** Peaks are to begin anew, because a guest asked: counts up. */
export const passagesAsked = ref(0)

/** The place that is shown, as the address names it. */
export const shownPlace = ref('path')

/** Both devices stay on one step. */
export const follows = ref(false)

/** Under which name the room that this tab has opened is noted, so that a reload goes back into it. */
export const OPENED_ROOM = 'remetra-opened-room'

export function hasOpenedRoom(): boolean {
  try {
    return sessionStorage.getItem(OPENED_ROOM) !== null
  } catch (error) {
    // Blocked storage holds nothing.
    if (error instanceof DOMException) return false
    throw error
  }
}
