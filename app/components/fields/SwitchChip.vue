<script setup lang="ts">
import { Switch } from '@headlessui/vue'

/** A switch that says its state in words. */
defineProps<{ on: boolean; label: string; caution?: string }>()
const emit = defineEmits<{ change: [on: boolean] }>()
</script>

<template>
  <Switch
    :model-value="on"
    :title="caution"
    :aria-label="label"
    class="inline-flex overflow-hidden rounded-xs border"
    :class="on ? 'border-change' : 'border-rule'"
    @update:model-value="emit('change', $event)"
  >
    <span class="px-1.5 py-px">{{ label }}</span>
    <span class="px-1.5 py-px font-semibold" :class="on ? 'bg-change text-on-change' : 'bg-paper text-muted'">{{
      on ? 'on' : 'off'
    }}</span>
  </Switch>
</template>
