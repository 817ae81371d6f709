import { ref, shallowRef } from 'vue'
import type { Met } from '#core/shared-session/met'
import { secondScreen } from '~/stores/second-screen'
import type { SecondScreen } from '~/stores/second-screen'

/** What met, and how what was set here can be set after all; `null` where it was decided here. */
export interface MetNews {
  /** Whose change it was, where it was not this device’s. */
  by: string | null
  met: readonly Met[]
  setMine: (() => void) | null
}

/** What has to be told of a session on several devices, until it is closed. */
export const metNews = shallowRef<MetNews | null>(null)
/** A change of this device that was not taken. */
export const refusedNews = ref<string | null>(null)

/** Messages that came and were not opened: sealed otherwise, changed, repeated, or no message at all. */
export const unopened = ref(0)

export function setState(change: Partial<SecondScreen>): void {
  if (secondScreen.value) secondScreen.value = { ...secondScreen.value, ...change }
}

export function forgetNews(): void {
  metNews.value = null
  refusedNews.value = null
  unopened.value = 0
}

/** What this device is called on the others. */
export function deviceName(): string {
  const isTouched = window.matchMedia('(pointer: coarse)').matches
  if (Math.min(window.innerWidth, window.innerHeight) < 600) return 'Phone'
  return isTouched ? 'Tablet' : 'Computer'
}
