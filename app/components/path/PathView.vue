<script setup lang="ts">
import { computed } from 'vue'
import { targetWindow } from '#core/session'
import { sectionModel } from '~/charts/section-model'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import type { Reading } from '~/stores/view'
import { useViewStore } from '~/stores/view'
import { CrossSection } from './cross-section'
import FindingsPanel from './FindingsPanel.vue'
import FloorPanel from './FloorPanel.vue'
import NotesPanel from './NotesPanel.vue'
import PathTable from './PathTable.vue'
import StageCard from './StageCard.vue'
import TargetPanel from './TargetPanel.vue'
import TimingPanel from './TimingPanel.vue'

const store = useSessionStore()
const view = useViewStore()
const { stages, planned } = useStripStages()

const readings: { value: Reading, text: string }[] = [
  { value: 'ceiling', text: 'Under the ceiling' }, { value: 'own', text: 'In its own unit' }, { value: 'table', text: 'Table' },
]
const model = computed(() => sectionModel(
  view.evaluated?.points ?? [], view.reading === 'own' ? 'own' : 'ceiling',
  view.evaluated?.tightest?.stage ?? null, targetWindow(store.session?.target ?? 'peaks-18-12'),
))
const unit = computed(() => {
  const last = stages.value.at(-1)
  return last?.kind === 'interface' ? last.gear : null
})
const summary = computed(() => `Section of ${view.strip?.name}: ${[view.statements?.headroom, view.statements?.floor].map((each) => `${each?.headline}, ${each?.detail}`).join('. ')}. The table has every figure.`)
</script>

<template>
  <div v-if="view.strip && view.evaluated" class="grid min-h-0 grow grid-cols-[minmax(0,1fr)_17rem] grid-rows-[minmax(0,1fr)] gap-4 pr-4 pl-2">
    <div class="flex min-h-0 min-w-0 flex-col">
      <div class="flex items-center justify-between py-1.5 pl-13">
        <h2 class="font-normal text-muted">Section of {{ view.strip.name }}</h2>
        <div class="flex border border-rule" role="radiogroup" aria-label="How to read the section">
          <button
            v-for="each in readings" :key="each.value" type="button" role="radio" :aria-checked="view.reading === each.value"
            class="px-2 py-0.5" :class="view.reading === each.value ? 'bg-ink text-paper' : 'bg-sheet'" @click="view.reading = each.value"
          >{{ each.text }}</button>
        </div>
      </div>
      <div class="min-h-56 grow basis-64 print:h-64">
        <div v-if="view.reading === 'table'" class="pl-13"><PathTable :points="view.evaluated.points" :stages="stages" /></div>
        <CrossSection v-else :model="model" :stages="stages" :summary="summary" />
      </div>
      <div class="mt-1.5 ml-13 grid shrink-0 pb-3" :style="{ gridTemplateColumns: `repeat(${stages.length}, minmax(0, 1fr))` }">
        <StageCard v-for="(stage, i) in stages" :key="stage.id" :number="i + 1" :stage="stage" :planned="planned(stage.id)" />
      </div>
    </div>
    <aside class="min-h-0 space-y-3 overflow-y-auto pt-2 pb-3 print:hidden" tabindex="0" aria-label="Target, findings, floor and timing">
      <TargetPanel />
      <FindingsPanel />
      <FloorPanel />
      <TimingPanel :unit="unit" />
      <NotesPanel />
    </aside>
  </div>
</template>
