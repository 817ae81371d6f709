import { createGlobalState, useLocalStorage } from '@vueuse/core'

/** Which kinds of stage show their data sheet in full; remembered in this browser. */
export const useDataSheets = createGlobalState(() => {
  const open = useLocalStorage<string[]>('remetra-data-sheets', [])
  const isOpen = (kind: string) => open.value.includes(kind)
  function toggle(kind: string) {
    open.value = isOpen(kind) ? open.value.filter((each) => each !== kind) : [...open.value, kind]
  }
  const unfold = (kind: string) => isOpen(kind) || toggle(kind)
  /** All of these, or none where all are open. */
  function toggleAll(kinds: readonly string[]) {
    const others = open.value.filter((each) => !kinds.includes(each))
    open.value = kinds.every(isOpen) ? others : [...others, ...new Set(kinds)]
  }
  return { isOpen, toggle, toggleAll, unfold }
})
