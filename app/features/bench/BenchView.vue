<script setup lang="ts">
import { lateComponent } from '~/shared/ui/late-component'
import { computed } from 'vue'
import { procedures } from '#core/bench/procedures'
import { useBenchStore } from '~/stores/bench'
import { useViewStore } from '~/stores/view'
import BenchIndex from './BenchIndex.vue'
import BenchStart from './BenchStart.vue'

const CompareUnits = lateComponent(() => import('./CompareUnits.vue'))
const CableRunPage = lateComponent(() => import('./CableRunPage.vue'))
const ProcedurePage = lateComponent(() => import('./ProcedurePage.vue'))
const RecordingPage = lateComponent(() => import('./RecordingPage.vue'))
const MeasureNextPanel = lateComponent(() => import('~/shared/explaining/MeasureNextPanel.vue'))
const TestSignals = lateComponent(() => import('./TestSignals.vue'))

/** Measuring from recordings: a page for each piece of work, and the list of them in the order in which they are done. */
const store = useBenchStore()
const view = useViewStore()
const procedure = computed(() => procedures.find((each) => each.id === store.page) ?? null)
</script>

<template>
  <div class="flex grow flex-col rail:min-h-0 rail:flex-row">
    <BenchIndex />
    <div class="min-w-0 grow px-3 pt-2 pb-4 card:px-5 rail:overflow-y-auto" tabindex="0" aria-label="Bench">
      <BenchStart v-if="store.page === 'start'" />
      <CableRunPage v-else-if="store.page === 'cable' && store.bench" :bench="store.bench" />
      <MeasureNextPanel v-else-if="view.sureness" all class="plate mb-3 px-3 pt-1 pb-2" />
      <TestSignals v-if="store.page === 'signals'" />
      <RecordingPage v-else-if="store.page === 'recording'" />
      <CompareUnits v-else-if="store.page === 'compare'" />
      <ProcedurePage
        v-else-if="procedure && store.bench"
        :key="procedure.id"
        :procedure="procedure"
        :bench="store.bench"
      />
      <p v-else-if="!store.bench" class="mt-3 text-muted">
        Nothing to measure yet: the session has no interface with an analogue input. Add one at the end of a strip on
        Path.
      </p>
    </div>
  </div>
</template>
