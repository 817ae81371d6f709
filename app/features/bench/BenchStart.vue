<script setup lang="ts">
import { computed } from 'vue'
import { procedures } from '#core/bench/procedures'
import { lateComponent } from '~/shared/ui/late-component'
import { useBenchStore } from '~/stores/bench'
import { useViewStore } from '~/stores/view'
import BenchChoice from './BenchChoice.vue'

const MeasureNextPanel = lateComponent(() => import('~/shared/explaining/MeasureNextPanel.vue'))

/** Where the bench begins: what is worth measuring here, in order, and what of the unit is measured already. */
const store = useBenchStore()
const view = useViewStore()
const known = computed(() => {
  const { bench } = store
  if (!bench) return []
  return procedures.map((procedure) => ({ procedure, found: procedure.known(bench) }))
})
const measured = computed(() => known.value.filter(({ found }) => found !== null).length)
/** The whole list is short enough to be read. */
const MOST = 12
</script>

<template>
  <div class="gap-x-8 gap-y-5 column:grid column:grid-cols-2" data-bench-start>
    <div>
      <p class="mb-2">What to measure in this session, ranked by what it gains for its minutes.</p>
      <p v-if="store.bench" class="mb-2 flex flex-wrap items-baseline gap-x-3">
        <button type="button" class="push-main" data-open-cable @click="store.page = 'cable'">
          Measure this interface
        </button>
        <span>Most of it at once: one cable, about two minutes.</span>
      </p>
      <MeasureNextPanel v-if="view.sureness" all :most="MOST" />
    </div>
    <section v-if="store.bench && procedures[0]" class="max-column:mt-5" aria-labelledby="measured-title">
      <h2 id="measured-title" class="flex justify-between border-b border-ink pb-0.5">
        Measured on {{ store.bench.unit.name }}
        <span class="font-normal text-muted">{{ measured }} of {{ known.length }}</span>
      </h2>
      <BenchChoice class="py-1" :bench="store.bench" :procedure="procedures[0]" />
      <ul>
        <li
          v-for="{ procedure, found } in known"
          :key="procedure.id"
          class="flex items-baseline gap-3 border-b border-line py-1"
          :data-known="procedure.id"
        >
          <button type="button" class="action grow text-left" @click="store.page = procedure.id">
            {{ procedure.title }}
          </button>
          <span class="text-right" :class="{ 'text-muted': !found }">
            {{ found ? `${found.words}${found.on ? `, ${found.on}` : ''}` : 'not measured' }}
          </span>
        </li>
      </ul>
    </section>
  </div>
</template>
