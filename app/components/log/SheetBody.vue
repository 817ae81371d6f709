<script setup lang="ts">
import { computed } from 'vue'
import { recallSheet, sheetHead } from '#core/log/sheets'
import SlideRule from '~/components/fields/SlideRule.vue'
import { useLogViewStore } from '~/stores/log-view'

/** A sheet as it is read and printed: the recall sheet with every gain drawn on a short slide rule, the others as tables. */
const props = defineProps<{ whole?: boolean }>()
const view = useLogViewStore()
const strips = computed(() => (view.sheetSession ? recallSheet(view.sheetSession) : []))
const head = computed(() => (view.sheetSession ? sheetHead(view.sheetSession, view.sheetMark) : []))
const header = computed(() => view.table[0] ?? [])
/** On the screen so many rows; all of them are on paper and in the files. */
const MOST_ROWS = 300
const all = computed(() => view.table.slice(1))
const rows = computed(() => (props.whole ? all.value : all.value.slice(0, MOST_ROWS)))
const joined = (list: readonly { name: string; words: string }[]) =>
  list.map(({ name, words }) => `${name} ${words}`.replace('48 V', '48\u00A0V')).join(' · ')
</script>

<template>
  <div v-if="view.sheet === 'recall'" data-sheet="recall">
    <p v-for="line in head" :key="line" class="text-muted">{{ line }}</p>
    <div class="mt-2 columns-1 gap-x-7 card:columns-2 print:columns-2">
      <section v-for="each in strips" :key="each.strip" class="mb-3 break-inside-avoid">
        <h3 class="flex justify-between border-b border-ink">
          {{ each.strip }}
          <span v-if="each.channel !== null" class="font-normal">recorder’s {{ each.channel }}</span>
        </h3>
        <div v-for="stage in each.stages" :key="stage.stage" class="border-b border-line py-0.5">
          <p>
            {{ stage.stage
            }}<span class="text-muted">{{ stage.others.length > 0 ? `: ${joined(stage.others)}` : '' }}</span>
          </p>
          <p v-for="gain in stage.gains" :key="gain.name" class="flex items-center gap-3">
            <span class="w-1/2"
              >{{ gain.name }} <strong class="font-semibold">{{ gain.words }}</strong></span
            >
            <SlideRule v-if="gain.scale" class="w-1/2" bare :value="gain.scale.value" :range="gain.scale.range" />
          </p>
        </div>
        <p v-if="each.routing.length > 0" class="py-0.5 text-muted">{{ joined(each.routing) }}</p>
      </section>
    </div>
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
          <td v-for="(cell, k) in row" :key="k" class="py-1 pr-3">{{ cell }}</td>
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
