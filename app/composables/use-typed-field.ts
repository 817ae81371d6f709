import type { InjectionKey } from 'vue'
import { inject, onScopeDispose, ref, useId } from 'vue'
import { inGesture } from '~/stores/gesture'
import { useSessionStore } from '~/stores/session'

/** What is typed is kept when the hand rests that long, ms. */
const REST = 600

/** Whether what is typed is kept while the field is still open; where there is no way back to the old value it is not. */
export const KEEP_WHILE_TYPED: InjectionKey<boolean> = Symbol('keep while typed')

/** Fields with something typed that is not yet taken. */
const open = new Set<() => void>()

/** Takes what stands in open fields, before the page goes away. */
export function takeAllTyped(): void {
  for (const take of open) take()
}

/**
 * A field that is edited where it stands: what is typed stays typed until it is taken (Enter, leaving, a rest) or given back (Esc).
 * What is refused is told in words when the field is left; the last good value stays.
 * @param take reads the text and keeps the value, or says in words why not.
 */
export function useTypedField(take: (text: string) => string | null) {
  const store = useSessionStore()
  const gesture = `typing ${useId()}`
  const keepsWhileTyped = inject(KEEP_WHILE_TYPED, true)
  const typed = ref<string | null>(null)
  const refusal = ref<string | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined

  function keep() {
    const text = typed.value
    return text === null ? null : inGesture(gesture, () => take(text))
  }
  function takeTyped() {
    close()
    if (typed.value === null) return
    refusal.value = keep()
    typed.value = null
    store.endGesture()
  }
  function close() {
    clearTimeout(timer)
    open.delete(takeTyped)
  }
  onScopeDispose(takeTyped)

  return {
    typed,
    refusal,
    type: (event: Event) => {
      typed.value = (event.target as HTMLInputElement).value
      refusal.value = null
      open.add(takeTyped)
      clearTimeout(timer)
      // A value that is not one yet is not refused while it is being typed.
      if (keepsWhileTyped) timer = setTimeout(keep, REST)
    },
    take: takeTyped,
    /** Esc gives the old value back and leaves the field; in a dialog a second Esc closes that. */
    giveBack: (event: KeyboardEvent) => {
      const field = event.target as HTMLElement
      const held = typed.value !== null || refusal.value !== null
      if (held) {
        event.stopPropagation()
        close()
        typed.value = null
        refusal.value = null
        store.takeBackGesture(gesture)
      }
      if (held || !field.closest('[role="dialog"]')) field.blur()
    },
  }
}
