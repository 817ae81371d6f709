<script setup lang="ts">
import SelectInput from '~/shared/fields/SelectInput.vue'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import OwnTask from '~/shared/ui/OwnTask.vue'
import { lateComponent } from '~/shared/ui/late-component'
import { computed, onMounted } from 'vue'
import { readingPlace } from '#core/chain/target-window'
import { isBus } from '#core/model'
import { windowOf } from '#core/uncertainty/window'
import { sectionModel } from '~/shared/section/section-model'
import { turnedSend } from '~/composables/turned'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useSends } from '~/shared/sends/use-sends'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useStripStages } from '~/composables/use-strip-stages'
import { pictureStands } from '~/stores/first-picture'
import { useSessionStore } from '~/stores/session'
import type { SectionReading } from '~/stores/view'
import { useViewStore } from '~/stores/view'
import CrossSection from './CrossSection.vue'
import FindingsPanel from './FindingsPanel.vue'
import FloorPanel from './FloorPanel.vue'
import NotesPanel from './NotesPanel.vue'
import StageRow from './StageRow.vue'
import StripHeading from './StripHeading.vue'
import TargetPanel from './TargetPanel.vue'

const PathTable = lateComponent(() => import('./PathTable.vue'))
const NoiseBudget = lateComponent(() => import('./NoiseBudget.vue'))
const ConventionsTable = lateComponent(() => import('./ConventionsTable.vue'))
const GearPicker = lateComponent(() => import('~/shared/gear/GearPicker.vue'))
const StageSheet = lateComponent(() => import('./StageSheet.vue'))
const BroughtPanel = lateComponent(() => import('./BroughtPanel.vue'))
const SendsPanel = lateComponent(() => import('~/shared/sends/SendsPanel.vue'))
const MeasureNextPanel = lateComponent(() => import('~/shared/explaining/MeasureNextPanel.vue'))
const UpdateDialog = lateComponent(() => import('~/shared/gear/UpdateDialog.vue'))

const store = useSessionStore()
const view = useViewStore()
const chain = useChainEdit()
const { stages, isLong, isCompact } = useStripStages()

const readings: { value: SectionReading; text: string }[] = [
  { value: 'ceiling', text: 'Relative to clipping' },
  { value: 'own', text: 'Absolute levels' },
  { value: 'table', text: 'Table' },
  { value: 'noise', text: 'Noise budget' },
  { value: 'conventions', text: 'Target levels' },
]
function read(as: SectionReading) {
  view.reading = as
  return null
}
const target = computed(() => (store.session && view.strip ? windowOf(store.session, view.strip, stages.value) : null))
const model = computed(() =>
  sectionModel(
    view.evaluated?.points ?? [],
    view.reading === 'own' ? 'own' : 'ceiling',
    view.evaluated?.tightest?.stage ?? null,
    reads.value ? target.value : null,
    view.evaluated?.sum ? { sum: view.evaluated.sum, name: nameOf } : null,
    view.showsSpread ? (view.sure?.points ?? []) : [],
  ),
)
const nameOf = (id: string) => store.session?.strips.find((strip) => strip.id === id)?.name ?? ''
const bus = computed(() => (view.strip && isBus(view.strip) ? view.strip : null))
/** A bus without a converter has no level to be set to, nor have pieces. */
const reads = computed(() => target.value !== null && readingPlace(stages.value, target.value) !== null)
const hasBusses = computed(() => store.session?.strips.some(isBus) ?? false)
const sends = useSends()
const inflows = computed(() =>
  bus.value
    ? sends
        .sendsInto(bus.value)
        .map(({ strip, feed }) => ({ turned: turnedSend(strip.id, feed), name: strip.name, from: strip.id }))
    : [],
)
const summary = computed(() => {
  const { headroom, floor } = view.statements ?? {}
  const said = [headroom, floor].map((each) => `${each?.headline}, ${each?.detail}`).join('. ')
  return `Section of ${view.strip?.name}: ${said}. The table has every figure.`
})
onMounted(pictureStands)

const edit = useStageEdit()
/** A data sheet that is brought to a stage of this strip. */
const pasted = computed(() => {
  const { value } = chain.pasting
  return value && stages.value.some(({ id }) => id === value.stage) ? value : null
})
/** What the last changes led to. */
const tellings = computed(() =>
  [chain.told, edit.settled].flatMap((each) =>
    each.value === null
      ? []
      : [
          {
            words: each.value,
            close: () => {
              each.value = null
            },
          },
        ],
  ),
)
const drawn = computed(() => view.reading === 'ceiling' || view.reading === 'own')
</script>

<template>
  <div
    v-if="view.strip && view.evaluated"
    class="grow gap-4 px-2 card:pr-4 column:grid column:min-h-0 column:grid-rows-[minmax(0,1fr)]"
    :class="isLong ? 'column:grid-cols-[minmax(0,1fr)_15rem]' : 'column:grid-cols-[minmax(0,1fr)_17rem]'"
  >
    <div class="flex min-w-0 flex-col column:min-h-0">
      <div class="flex flex-wrap items-center justify-between gap-x-3 gap-y-1 py-1.5 card:pl-13">
        <StripHeading />
        <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
          <SelectInput
            v-if="isCompact"
            :value="view.reading"
            label="How to read the section"
            :options="readings"
            :commit="read"
          />
          <ChoiceBar
            v-else
            :options="readings"
            :chosen="view.reading"
            label="How to read the section"
            @choose="(each) => (view.reading = each)"
          />
          <button
            type="button"
            class="min-h-6 min-w-6 border px-2 py-0.5"
            :class="view.showsSpread ? 'border-change bg-change-soft' : 'border-rule bg-sheet'"
            :aria-pressed="view.showsSpread"
            aria-label="Show the ± of the edges"
            title="The ± of the edges"
            data-doubt
            @click="view.toggleSpread"
          >
            ±
          </button>
        </div>
      </div>
      <p
        v-for="told in tellings"
        :key="told.words"
        role="status"
        class="mb-1 flex justify-between gap-3 border border-rule bg-sheet px-2 py-1 card:ml-13"
        data-told
      >
        {{ told.words }} <button type="button" class="action" @click="told.close">Close</button>
      </p>
      <div
        data-reading
        tabindex="-1"
        class="min-h-72 grow outline-none column:min-h-56 column:basis-64 print:h-64"
        :class="{ 'overflow-auto': !drawn, 'h-80': drawn }"
      >
        <p v-if="bus && drawn && model.columns.length === 0" class="p-4 card:pl-13" data-unfed>
          Nothing feeds “{{ bus.name }}” yet. Add a send below, or on the page of a strip.
        </p>
        <CrossSection
          v-else-if="drawn"
          :model="model"
          :stages="stages"
          :summary="summary"
          :strip="view.strip.id"
          :sends="inflows"
        />
        <div v-else-if="view.reading === 'table'" class="h-full card:pl-13">
          <PathTable :points="view.evaluated.points" :stages="stages" />
        </div>
        <NoiseBudget v-else-if="view.reading === 'noise'" />
        <ConventionsTable v-else />
      </div>
      <OwnTask><StageRow /></OwnTask>
    </div>
    <aside
      class="gap-x-8 pt-2 pb-3 max-column:columns-1 card:max-column:columns-2 column:min-h-0 column:overflow-y-auto print:hidden *:mb-3 *:break-inside-avoid"
      tabindex="0"
      aria-label="Target, findings and floor"
    >
      <OwnTask v-if="bus"><BroughtPanel :bus="bus" /></OwnTask>
      <OwnTask v-if="reads || !bus"><TargetPanel /></OwnTask>
      <OwnTask><FindingsPanel /></OwnTask>
      <OwnTask v-if="view.sureness"><MeasureNextPanel /></OwnTask>
      <OwnTask v-if="hasBusses" :key="view.strip.id"><SendsPanel :strip="view.strip" /></OwnTask>
      <OwnTask><FloorPanel /></OwnTask>
      <OwnTask><NotesPanel /></OwnTask>
    </aside>
    <GearPicker v-if="chain.picking.value" />
    <StageSheet
      v-if="pasted"
      :stages="stages"
      :in-hand="pasted.stage"
      :brought="pasted.brought"
      @close="chain.pasting.value = null"
    />
    <UpdateDialog v-if="chain.updating.value" />
  </div>
</template>
