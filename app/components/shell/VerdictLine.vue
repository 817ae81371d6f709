<script setup lang="ts">
import { computed, nextTick } from 'vue'
import { useViewStore } from '~/stores/view'

/** The three answers, on every screen; each leads to where it can be changed. */
const view = useViewStore()

const cells = computed(() => view.statements && [
  { key: 'headroom', ...view.statements.headroom, to: '[data-gain]' },
  { key: 'floor', ...view.statements.floor, to: '#floor-panel' },
  { key: 'latency', ...view.statements.latency, to: '#timing-panel select' },
])

async function lead(selector: string) {
  await nextTick()
  const place = document.querySelector<HTMLElement>(selector)
  place?.scrollIntoView({ block: 'nearest' })
  place?.focus()
}
</script>

<template>
  <div v-if="cells" class="plate grid grid-cols-3 border-x-0 border-t-0" role="status" aria-label="Verdict" aria-live="off">
    <button
      v-for="cell in cells" :key="cell.key" type="button" class="min-w-0 border-r border-line px-5 py-1.5 text-left last:border-r-0 hover:bg-paper"
      :data-verdict="cell.key" @click="lead(cell.to)"
    >
      <strong class="block truncate text-[15px] font-semibold">{{ cell.headline }}</strong>
      <span class="block truncate text-muted" :title="cell.detail">{{ cell.detail }}</span>
    </button>
  </div>
</template>
