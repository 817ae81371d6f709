<script setup lang="ts" generic="T extends string | number">
/** A choice from a short list. A plain select: it has every platform's keys and reads well. */
const props = defineProps<{
  value: T
  label: string
  options: readonly { value: T; text: string }[]
  commit: (value: T) => string | null
}>()

function choose(event: Event) {
  const select = event.target as HTMLSelectElement
  const option = props.options[select.selectedIndex]
  if (option && props.commit(option.value) !== null) select.value = String(props.value)
}
</script>

<template>
  <select
    class="max-w-full border-b border-dotted border-rule bg-sheet py-px hover:border-change"
    :aria-label="label"
    :value="value"
    @change="choose"
  >
    <option v-for="option in options" :key="option.value" :value="option.value">{{ option.text }}</option>
  </select>
</template>
