import { ref } from 'vue'

/**
 * A field that is edited where it stands: what is typed stays typed until it is taken (Enter, leaving) or given back
 * (Esc). What is refused is told in words; the last good value stays.
 * @param take reads the text and keeps the value, or says in words why not.
 */
export function useTypedField(take: (text: string) => string | null) {
  const typed = ref<string | null>(null)
  const refusal = ref<string | null>(null)

  return {
    typed,
    refusal,
    type: (event: Event) => {
      typed.value = (event.target as HTMLInputElement).value
      refusal.value = null
    },
    take: () => {
      if (typed.value === null) return
      refusal.value = take(typed.value)
      typed.value = null
    },
    giveBack: (event: KeyboardEvent) => {
      if (typed.value === null && refusal.value === null) return
      event.stopPropagation()
      typed.value = null
      refusal.value = null
    },
  }
}
