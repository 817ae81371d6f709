<script setup lang="ts">
import { computed } from 'vue'
import { cellText } from '#core/log/sheets'
import { useLogViewStore } from './log-view'
import RecallSheet from './RecallSheet.vue'

/** A sheet as it is read and printed: the recall sheet with every gain drawn on a short slide rule, the others as tables. */
const props = defineProps<{ whole?: boolean }>()
const view = useLogViewStore()
const header = computed(() => view.table[0] ?? [])
/** On the screen so many rows; all of them are on paper and in the files. */
const MOST_ROWS = 300
const all = computed(() => view.table.slice(1))
const rows = computed(() => (props.whole ? all.value : all.value.slice(0, MOST_ROWS)))
</script>

<template>
  <div v-if="view.sheet === 'recall'" data-sheet="recall">
    <RecallSheet v-if="view.sheetSession" :session="view.sheetSession" :mark="view.sheetMark" :whole="whole" />
  </div>
  <div v-else class="overflow-x-auto" tabindex="0" :aria-label="view.title" :data-sheet="view.sheet">
    <table class="w-full">
      <thead>
        <tr class="border-b border-ink text-left">
          <th v-for="each in header" :key="each" class="py-1 pr-3">{{ each }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in rows" :key="i" class="border-b border-line align-baseline">
          <td v-for="(cell, k) in row" :key="k" class="py-1 pr-3">{{ cellText(cell) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length < all.length" class="mt-2 text-muted">
      {{ all.length - rows.length }} more rows are on paper and in the files.
    </p>
    <p v-if="rows.length === 0" class="mt-2 text-muted">
      {{ view.sheet === 'takes' ? 'No take is logged yet.' : 'No strip goes to a recorder’s input.' }}
    </p>
  </div>
</template>
