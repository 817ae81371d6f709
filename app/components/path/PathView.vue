<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { windowFor } from '#core/chain/target-window'
import { DEFAULT_CONVENTION } from '#core/session'
import { sectionModel } from '~/charts/section-model'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import type { SectionReading } from '~/stores/view'
import { useViewStore } from '~/stores/view'
import { CrossSection } from './cross-section'
import FindingsPanel from './FindingsPanel.vue'
import FloorPanel from './FloorPanel.vue'
import NotesPanel from './NotesPanel.vue'
import PathTable from './PathTable.vue'
import StageRow from './StageRow.vue'
import StripHeading from './StripHeading.vue'
import TargetPanel from './TargetPanel.vue'

const NoiseBudget = defineAsyncComponent(() => import('./NoiseBudget.vue'))
const ConventionsTable = defineAsyncComponent(() => import('./ConventionsTable.vue'))
const GearPicker = defineAsyncComponent(() => import('~/components/gear/GearPicker.vue'))
const UpdateDialog = defineAsyncComponent(() => import('~/components/gear/UpdateDialog.vue'))

const store = useSessionStore()
const view = useViewStore()
const chain = useChainEdit()
const { stages, isLong } = useStripStages()

const readings: { value: SectionReading; text: string }[] = [
  { value: 'ceiling', text: 'Under the ceiling' },
  { value: 'own', text: 'In its own unit' },
  { value: 'table', text: 'Table' },
  { value: 'noise', text: 'Noise budget' },
  { value: 'conventions', text: 'Conventions' },
]
const model = computed(() =>
  sectionModel(
    view.evaluated?.points ?? [],
    view.reading === 'own' ? 'own' : 'ceiling',
    view.evaluated?.tightest?.stage ?? null,
    windowFor(store.session?.target ?? DEFAULT_CONVENTION, stages.value),
  ),
)
const summary = computed(() => {
  const { headroom, floor } = view.statements ?? {}
  const said = [headroom, floor].map((each) => `${each?.headline}, ${each?.detail}`).join('. ')
  return `Section of ${view.strip?.name}: ${said}. The table has every figure.`
})
const drawn = computed(() => view.reading === 'ceiling' || view.reading === 'own')
</script>

<template>
  <div
    v-if="view.strip && view.evaluated"
    class="grid min-h-0 grow grid-rows-[minmax(0,1fr)] gap-4 pr-4 pl-2"
    :class="isLong ? 'grid-cols-[minmax(0,1fr)_15rem]' : 'grid-cols-[minmax(0,1fr)_17rem]'"
  >
    <div class="flex min-h-0 min-w-0 flex-col">
      <div class="flex items-center justify-between gap-3 py-1.5 pl-13">
        <StripHeading />
        <div class="flex shrink-0 border border-rule" role="radiogroup" aria-label="How to read the section">
          <button
            v-for="each in readings"
            :key="each.value"
            type="button"
            role="radio"
            :aria-checked="view.reading === each.value"
            class="px-2 py-0.5"
            :class="view.reading === each.value ? 'bg-ink text-paper' : 'bg-sheet'"
            @click="view.reading = each.value"
          >
            {{ each.text }}
          </button>
        </div>
      </div>
      <p
        v-if="chain.told.value"
        role="alert"
        class="mb-1 ml-13 flex justify-between gap-3 border border-rule bg-sheet px-2 py-1"
        data-told
      >
        {{ chain.told.value }} <button type="button" class="action" @click="chain.told.value = null">Close</button>
      </p>
      <div class="min-h-56 grow basis-64 print:h-64" :class="{ 'overflow-y-auto': !drawn }">
        <CrossSection v-if="drawn" :model="model" :stages="stages" :summary="summary" />
        <div v-else-if="view.reading === 'table'" class="pl-13">
          <PathTable :points="view.evaluated.points" :stages="stages" />
        </div>
        <NoiseBudget v-else-if="view.reading === 'noise'" />
        <ConventionsTable v-else />
      </div>
      <StageRow />
    </div>
    <aside
      class="min-h-0 space-y-3 overflow-y-auto pt-2 pb-3 print:hidden"
      tabindex="0"
      aria-label="Target, findings and floor"
    >
      <TargetPanel />
      <FindingsPanel />
      <FloorPanel />
      <NotesPanel />
    </aside>
    <GearPicker v-if="chain.picking.value" />
    <UpdateDialog v-if="chain.updating.value" />
  </div>
</template>
