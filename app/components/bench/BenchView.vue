<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { procedures } from '#core/bench/procedures'
import { useBenchStore } from '~/stores/bench'
import BenchIndex from './BenchIndex.vue'

const CompareUnits = defineAsyncComponent(() => import('./CompareUnits.vue'))
const ProcedurePage = defineAsyncComponent(() => import('./ProcedurePage.vue'))
const RecordingPage = defineAsyncComponent(() => import('./RecordingPage.vue'))
const TestSignals = defineAsyncComponent(() => import('./TestSignals.vue'))

/** Measuring from recordings: a page for each piece of work, and the list of them in the order in which they are done. */
const store = useBenchStore()
const procedure = computed(() => procedures.find((each) => each.id === store.page) ?? null)
</script>

<template>
  <div class="flex min-h-0 grow">
    <BenchIndex />
    <div class="min-w-0 grow overflow-y-auto px-5 pt-2 pb-4" tabindex="0" aria-label="Bench">
      <TestSignals v-if="store.page === 'signals'" />
      <RecordingPage v-else-if="store.page === 'recording'" />
      <CompareUnits v-else-if="store.page === 'compare'" />
      <ProcedurePage
        v-else-if="procedure && store.bench"
        :key="procedure.id"
        :procedure="procedure"
        :bench="store.bench"
      />
      <p v-else class="text-muted">
        Nothing to measure yet: the session has no interface with an analogue input. Add one at the end of a strip on
        Path.
      </p>
    </div>
  </div>
</template>
