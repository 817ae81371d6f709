<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { latePart } from '~/stores/late-part'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useStripStages } from '~/composables/use-strip-stages'
import { useViewStore } from '~/stores/view'
import { isBus } from '#core/model'
import { INFLOW } from './section-drawing'
import { lateComponent } from '~/shared/ui/late-component'
import OwnTask from '~/shared/ui/OwnTask.vue'
import JointMark from './JointMark.vue'
import StageCard from './StageCard.vue'
import StageColumn from './StageColumn.vue'
import StageTabs from './StageTabs.vue'

/**
 * The stages under their columns, with the joints between them. They are moved by dragging their heads or with
 * Alt and an arrow key; Delete takes one out, Insert puts one behind it.
 */
const view = useViewStore()
const chain = useChainEdit()
const { stages, joints, isLong, isCompact, selected } = useStripStages()
const ConfluenceCard = lateComponent(() => import('./ConfluenceCard.vue'))
/** On a bus what flows into it stands before its stages, as wide as in the section. */
const bus = computed(() => (view.strip && isBus(view.strip) ? view.strip : null))
const inflow = computed(() => (bus.value ? INFLOW : 0))
const columns = computed(
  () => `${bus.value ? `minmax(0, ${INFLOW}fr) ` : ''}repeat(${stages.value.length}, minmax(0, 1fr))`,
)
const row = ref<HTMLElement | null>(null)
/** After the questions at the start one goes on at the first stage: Tab leads to its figures, and single keys work. */
function begin() {
  if (!view.begins) return
  view.begins = false
  row.value?.querySelector<HTMLElement>('[data-stage]')?.focus()
}
onMounted(begin)
watch(() => view.begins, begin, { flush: 'post' })
let stopDragging: (() => void) | null = null

/** Fetched when a pointer first comes near: a visit that never drags does without it. */
async function prepareDragging() {
  if (stopDragging) return
  const part = await latePart(() => import('@vueuse/integrations/useSortable'))
  if (!part) return
  const { insertNodeAt, removeNode, useSortable } = part
  // The list is the session’s: it is moved below, not by the library.
  stopDragging ??= useSortable(row, [], {
    handle: '[data-drag]',
    draggable: '[data-stage]',
    animation: window.matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 120,
    onUpdate: ({ item, from, oldIndex = 0, oldDraggableIndex = 0, newDraggableIndex = 0 }) => {
      // The library moved the element; the picture belongs to Vue, so it goes back before the session changes.
      removeNode(item)
      insertNodeAt(from, item, oldIndex)
      const stage = stages.value[oldDraggableIndex]
      if (stage) chain.moveTo(stage.id, newDraggableIndex)
    },
  }).stop
}
onBeforeUnmount(() => stopDragging?.())

function keys(event: KeyboardEvent, stage: string) {
  const typing = event.target instanceof HTMLElement && ['INPUT', 'SELECT', 'TEXTAREA'].includes(event.target.tagName)
  const acts: Record<string, () => void> = event.altKey
    ? { ArrowLeft: () => chain.move(stage, -1), ArrowRight: () => chain.move(stage, 1) }
    : typing
      ? {}
      : { Delete: () => chain.remove(stage), Insert: () => chain.openInsert(chain.indexOf(stage) + 1) }
  const act = acts[event.key]
  if (!act) return
  event.preventDefault()
  act()
}
</script>

<template>
  <template v-if="isCompact && selected">
    <ConfluenceCard v-if="bus" :bus="bus" class="mt-2" />
    <StageTabs :selected="selected" />
  </template>
  <div v-else class="relative mt-1.5 ml-13 shrink-0" :class="{ 'pb-3': !isLong }">
    <div ref="row" class="grid" :style="{ gridTemplateColumns: columns }" @pointerenter="prepareDragging">
      <ConfluenceCard v-if="bus" :bus="bus" :narrow="isLong" />
      <div
        v-for="(stage, i) in stages"
        :key="stage.id"
        class="grid min-w-0"
        data-stage
        tabindex="-1"
        @keydown="keys($event, stage.id)"
        @focusin="view.selectStage(stage.id)"
      >
        <StageColumn
          v-if="isLong"
          :stage="stage"
          :number="i + 1"
          :selected="stage.id === selected?.id"
          @select="view.selectStage(stage.id)"
        />
        <OwnTask v-else><StageCard :stage="stage" :number="i + 1" /></OwnTask>
      </div>
    </div>
    <div class="pointer-events-none absolute inset-x-0 top-0 print:hidden">
      <OwnTask>
        <div
          v-for="(joint, i) in joints"
          :key="joint.stage"
          class="pointer-events-auto absolute top-0 z-20 -translate-x-1/2 -translate-y-1/2"
          :style="{ left: `${(100 * (i + 1 + inflow)) / (stages.length + inflow)}%` }"
        >
          <JointMark :joint="joint" :number="i + 1" />
        </div>
      </OwnTask>
    </div>
  </div>
  <div
    v-if="isLong && selected"
    class="mt-1.5 shrink-0 pb-3 card:ml-13 column:h-58 column:overflow-y-auto print:hidden"
    tabindex="0"
    aria-label="The selected stage in full"
  >
    <OwnTask
      ><StageCard :key="selected.id" :stage="selected" :number="chain.indexOf(selected.id) + 1" :wide="!isCompact"
    /></OwnTask>
  </div>
</template>
