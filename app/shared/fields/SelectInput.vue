<script setup lang="ts" generic="T extends string | number">
import { ref, watch } from 'vue'

/** A choice from a short list. A plain select: it has every platform's keys and reads well. A refusal is told in words. */
const props = defineProps<{
  value: T
  label: string
  options: readonly { value: T; text: string }[]
  commit: (value: T) => string | null
}>()
const refusal = ref<string | null>(null)
watch(
  () => props.value,
  () => {
    refusal.value = null
  },
)

function choose(event: Event) {
  const select = event.target as HTMLSelectElement
  const option = props.options[select.selectedIndex]
  refusal.value = option ? props.commit(option.value) : null
  if (refusal.value !== null) select.value = String(props.value)
}
</script>

<template>
  <span class="relative inline-flex max-w-full min-w-0">
    <select
      class="-my-0.5 field-sizing-content min-h-6 w-full max-w-full border-b border-dotted border-rule bg-sheet py-0.5 hover:border-change"
      :aria-label="label"
      :value="value"
      @change="choose"
    >
      <option v-for="option in options" :key="option.value" :value="option.value">{{ option.text }}</option>
    </select>
    <span
      v-if="refusal"
      role="alert"
      class="plate absolute top-full left-0 z-30 w-max max-w-60 border-ceiling! px-2 py-1 text-xs font-normal text-ceiling"
      >{{ refusal }}</span
    >
  </span>
</template>
