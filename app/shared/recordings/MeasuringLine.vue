<script setup lang="ts">
import { formatDecimal } from '#core/units'

/** How far a measurement is, with its way out, and what went wrong. */
defineProps<{ name: string; progress: number | null; trouble: string | null }>()
const emit = defineEmits<{ cancel: [] }>()
</script>

<template>
  <p v-if="progress !== null" role="status" class="mt-1 flex items-center gap-2">
    Measuring “{{ name }}”… <progress class="grow" :value="progress" max="1" />
    <span class="figure">{{ formatDecimal(100 * progress, 0) }} %</span>
    <button type="button" class="action" @click="emit('cancel')">Cancel</button>
  </p>
  <p v-if="trouble" role="alert" class="mt-1 text-ceiling">
    <strong>“{{ name }}” was not measured.</strong> {{ trouble }}
  </p>
</template>
