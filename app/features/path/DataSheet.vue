<script setup lang="ts">
import { ChevronRight } from '@lucide/vue'
import { computed } from 'vue'
import { useDataSheets } from '~/composables/use-data-sheets'

/** What is entered once and seldom looked at, behind a line that sums it up. */
const props = defineProps<{ kind: string; line: string }>()
const sheets = useDataSheets()
const isOpen = computed(() => sheets.isOpen(props.kind))
</script>

<template>
  <div class="mt-1.5 border-t border-line pt-1" data-sheet>
    <button
      type="button"
      class="flex min-h-6 w-full items-start gap-1 py-0.5 text-left text-xs text-change"
      :aria-expanded="isOpen"
      @click="sheets.toggle(kind)"
    >
      <ChevronRight class="mt-0.5 size-3 shrink-0" :class="{ 'rotate-90': isOpen }" aria-hidden="true" />
      <span>{{ line }}</span>
    </button>
    <div v-if="isOpen" class="mt-1"><slot /></div>
  </div>
</template>
