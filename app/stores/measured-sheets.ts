import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { MeasuredSheet } from '#core/files'

/** A sheet with what keeping it needs besides. */
export interface OpenSheet {
  sheet: MeasuredSheet
  /** At which the round trips were measured, frames, in their order. */
  buffers: readonly number[]
  /** Played and recorded by the browser: its round trip is not the host’s. */
  isThroughBrowser: boolean
}

/** The measured sheets of this tab; the shell prints the one that is shown. */
export const useMeasuredSheets = defineStore('measured-sheets', () => {
  /** The newest first. */
  const all = shallowRef<OpenSheet[]>([])
  const open = shallowRef<OpenSheet | null>(null)
  const beside = shallowRef<MeasuredSheet | null>(null)
  const isShown = ref(false)
  return {
    all,
    open,
    beside,
    isShown,
    add: (next: OpenSheet) => {
      all.value = [next, ...all.value]
      open.value = next
    },
  }
})
