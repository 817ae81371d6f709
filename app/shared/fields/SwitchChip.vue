<script setup lang="ts">
import { Switch } from '@headlessui/vue'
import { ref, watch } from 'vue'

/** A switch that says its state in words, and in words why it was not taken. */
const props = defineProps<{
  on: boolean
  label: string
  caution?: string
  /** Takes the new state, or says in words why not. */
  onChange: (on: boolean) => unknown
}>()
const refusal = ref<string | null>(null)
watch(
  () => props.on,
  () => {
    refusal.value = null
  },
)
function change(on: boolean) {
  const answer = props.onChange(on)
  refusal.value = typeof answer === 'string' ? answer : null
}
</script>

<template>
  <span class="relative inline-block">
    <Switch
      :model-value="on"
      :title="caution"
      :aria-label="label"
      class="inline-flex min-h-6 items-stretch overflow-hidden rounded-xs border"
      :class="on ? 'border-change' : 'border-rule'"
      @update:model-value="change"
    >
      <span class="self-center px-1.5 py-px whitespace-nowrap">{{ label }}</span>
      <span
        class="flex items-center px-1.5 py-px font-semibold"
        :class="on ? 'bg-change text-on-change' : 'bg-paper text-muted'"
        >{{ on ? 'on' : 'off' }}</span
      >
    </Switch>
    <span
      v-if="refusal"
      role="alert"
      class="plate absolute top-full left-0 z-30 w-max max-w-60 border-ceiling! px-2 py-1 text-xs text-ceiling"
      >{{ refusal }}</span
    >
  </span>
</template>
