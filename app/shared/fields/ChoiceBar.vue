<script setup lang="ts" generic="T extends string">
/** One of a few, side by side: chosen by press, and with the arrow keys from one to the next, as radio buttons are. */
const { options, chosen, label } = defineProps<{
  options: readonly { value: T; text: string }[]
  /** `null` where none is. */
  chosen: T | null
  /** What is chosen, for those who hear the page. */
  label: string
}>()
const emit = defineEmits<{ choose: [value: T] }>()

/** So many stand in one line, also on a phone. */
const FEW = 3
const STEPS: Record<string, 1 | -1> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }

/** The one that Tab comes to. */
const isEntry = (i: number) => (chosen === null ? i === 0 : options[i]?.value === chosen)

function walk(event: KeyboardEvent, from: number) {
  const step = STEPS[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  const to = (from + step + options.length) % options.length
  const next = options[to]
  if (!next) return
  const bar = (event.currentTarget as HTMLElement).parentElement
  ;(bar?.children[to] as HTMLElement).focus()
  emit('choose', next.value)
}
</script>

<template>
  <span
    class="inline-flex border border-rule"
    :class="{ 'flex-wrap': options.length > FEW }"
    role="radiogroup"
    :aria-label="label"
  >
    <button
      v-for="(each, i) in options"
      :key="each.value"
      type="button"
      role="radio"
      class="min-h-6 px-2 py-0.5"
      :class="chosen === each.value ? 'bg-ink text-paper' : 'bg-sheet hover:text-change'"
      :aria-checked="chosen === each.value"
      :tabindex="isEntry(i) ? 0 : -1"
      @click="emit('choose', each.value)"
      @keydown="walk($event, i)"
    >
      {{ each.text }}
    </button>
  </span>
</template>
