<script setup lang="ts">
import { ArrowDown, ArrowUp } from '@lucide/vue'

/** The head of a column that sorts by it: up, down, and as the session has it. */
defineProps<{ sorted: 'ascending' | 'descending' | undefined; end?: boolean }>()
const emit = defineEmits<{ sort: [] }>()
</script>

<template>
  <th scope="col" :aria-sort="sorted" class="px-1 font-normal" :class="end ? 'text-right' : 'text-left'">
    <button type="button" class="py-1" @click="emit('sort')">
      <slot /><component
        :is="sorted === 'descending' ? ArrowDown : ArrowUp"
        v-if="sorted"
        class="inline size-3"
        aria-hidden="true"
      />
    </button>
  </th>
</template>
