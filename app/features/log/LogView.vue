<script setup lang="ts">
import { ref } from 'vue'
import AsideNotice from '~/shared/ui/AsideNotice.vue'
import { lateComponent } from '~/shared/ui/late-component'
import { useLog } from '~/composables/use-log'
import { useShortcuts } from '~/composables/use-shortcuts'
import { useLogStore } from '~/stores/log'
import type { LogPage } from './log-view'
import { useLogViewStore } from './log-view'
import OwnTask from '~/shared/ui/OwnTask.vue'
import MarkList from './MarkList.vue'
import TakesPage from './TakesPage.vue'

const ComparePage = lateComponent(() => import('./ComparePage.vue'))
const MarkDialog = lateComponent(() => import('~/shared/log/MarkDialog.vue'))
const RecallPage = lateComponent(() => import('./RecallPage.vue'))
const SheetsPage = lateComponent(() => import('./SheetsPage.vue'))

/** The record: what stood where and when, what was recorded with it, and the way back to it. */
const logStore = useLogStore()
const view = useLogViewStore()
const log = useLog()
const marking = ref(false)
const takes = ref<{ toggle: () => void } | null>(null)

const PAGES: { value: LogPage; text: string }[] = [
  { value: 'takes', text: 'Takes' },
  { value: 'recall', text: 'Recall' },
  { value: 'compare', text: 'Compare' },
  { value: 'sheets', text: 'Sheets' },
]
const lastTake = () => logStore.log.takes.findLast(({ struck }) => !struck)
const judge = (verdict: 'keep' | 'maybe' | 'no') => () => {
  const take = lastTake()
  if (take) void log.changeTake(take, { verdict })
}
useShortcuts([
  { keys: ['Y'], does: 'The last take: keep', at: 'Log', run: judge('keep') },
  { keys: ['D'], does: 'The last take: maybe', at: 'Log', run: judge('maybe') },
  { keys: ['X'], does: 'The last take: no', at: 'Log', run: judge('no') },
  { keys: ['L'], does: 'Start or end a take', at: 'Log', run: () => takes.value?.toggle() },
  {
    keys: ['B'],
    does: 'Add a mark',
    at: 'Log',
    run: () => {
      marking.value = true
    },
  },
])
</script>

<template>
  <div
    class="grow gap-x-7 px-3 pt-2 pb-4 card:px-5 rail:grid rail:min-h-0 rail:grid-cols-[minmax(0,1fr)_16rem] rail:overflow-hidden"
  >
    <div class="min-w-0 rail:min-h-0 rail:overflow-y-auto" tabindex="0" aria-label="Log">
      <nav class="mb-3 flex flex-wrap gap-x-5 border-b border-ink" aria-label="Pages of the log">
        <button
          v-for="each in PAGES"
          :key="each.value"
          type="button"
          class="border-b-3 pb-0.5"
          :class="view.page === each.value ? 'border-change font-semibold' : 'border-transparent hover:text-change'"
          :aria-current="view.page === each.value ? 'page' : undefined"
          @click="view.page = each.value"
        >
          {{ each.text }}
        </button>
      </nav>
      <p v-if="logStore.trouble" role="alert" class="mb-2 border-l-3 border-ceiling pl-2">{{ logStore.trouble }}</p>
      <AsideNotice :items="logStore.aside" of="log" />
      <!-- A take goes on whatever page is looked at. -->
      <TakesPage v-show="view.page === 'takes'" ref="takes" @mark="marking = true" />
      <RecallPage v-if="view.page === 'recall'" />
      <ComparePage v-else-if="view.page === 'compare'" />
      <SheetsPage v-else-if="view.page === 'sheets'" />
    </div>
    <div class="min-w-0 max-rail:mt-5 rail:min-h-0 rail:overflow-y-auto" tabindex="0" aria-label="Marks">
      <OwnTask><MarkList @make="marking = true" /></OwnTask>
    </div>
    <MarkDialog v-if="marking" @made="marking = false" @close="marking = false" />
  </div>
</template>
