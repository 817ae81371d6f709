<script setup lang="ts">
import { ref } from 'vue'
import OwnTask from '~/shared/ui/OwnTask.vue'
import { lateComponent } from '~/shared/ui/late-component'
import type { MeterChoice } from '#core/soundcheck/meter-choices'
import type { Step } from '#core/soundcheck/step'
import { useGauge } from '~/composables/use-gauge'
import { useShortcuts } from '~/composables/use-shortcuts'
import { useSoundcheck } from './use-soundcheck'
import { useSoundcheckStore } from '~/stores/soundcheck'
import { useViewStore } from '~/stores/view'
import ByEar from './ByEar.vue'
import CautionsPanel from './CautionsPanel.vue'
import GaugePanel from './GaugePanel.vue'
import ReadingSays from './ReadingSays.vue'
import ReadingsList from './ReadingsList.vue'
import RunSheet from './RunSheet.vue'

const MarkDialog = lateComponent(() => import('~/shared/log/MarkDialog.vue'))
const MeasureNextPanel = lateComponent(() => import('~/shared/explaining/MeasureNextPanel.vue'))

/** The soundcheck: what to do in which order, what comes in, and what it says. */
const view = useViewStore()
const state = useSoundcheckStore()
const soundcheck = useSoundcheck()
const gauge = useGauge(() => view.strip?.id ?? null)
const panel = ref<{ take: () => void; startPassage: () => void } | null>(null)
const marking = ref<Step | null>(null)

/** The last step is a mark: it is ticked when that is made. */
function tick(step: Step) {
  if (step.id === 'recall.mark' && step.state !== 'done') marking.value = step
  else soundcheck.tick(step)
}
function marked() {
  if (marking.value) soundcheck.tick(marking.value)
  marking.value = null
}

const take = (meter: MeterChoice, value: number): string | null => {
  const stage = state.step?.read?.stage ?? view.evaluated?.points.findLast(({ unit }) => unit === 'dBFS')?.stage
  if (!view.strip || !stage) return 'This strip has no meter in dBFS.'
  return soundcheck.take({ strip: view.strip.id, stage, meter, value, by: 'live' })
}

/** A key that a control takes for itself is left to it. */
const atRest = () => !document.activeElement?.matches('button, a, summary, [role="radio"]')
useShortcuts([
  {
    keys: ['Enter'],
    does: 'Tick the current step',
    at: 'Soundcheck',
    when: atRest,
    run: () => state.step && tick(state.step),
  },
  { keys: [' '], does: 'Take the reading', at: 'Soundcheck', when: atRest, run: () => panel.value?.take() },
  { keys: ['R'], does: 'Restart the passage', at: 'Soundcheck', run: () => panel.value?.startPassage() },
  { keys: ['J'], does: 'Next step', at: 'Soundcheck', run: () => state.move(1) },
  { keys: ['K'], does: 'Previous step', at: 'Soundcheck', run: () => state.move(-1) },
])
</script>

<template>
  <div
    class="grow gap-x-7 gap-y-4 px-3 pt-2 pb-4 card:px-5 rail:grid rail:min-h-0 rail:grid-cols-[17.5rem_minmax(0,1fr)] rail:overflow-hidden column:grid-cols-[18rem_minmax(0,1fr)_14.5rem]"
  >
    <div class="min-w-0 rail:min-h-0 rail:overflow-y-auto" tabindex="0" aria-label="Run sheet">
      <OwnTask><RunSheet @tick="tick" /></OwnTask>
      <p class="mt-2 flex flex-wrap gap-3 text-muted">
        <button type="button" class="action" @click="soundcheck.beginAnew">Start over</button>
      </p>
      <p v-if="soundcheck.told.value" role="alert" class="mt-1 text-ceiling">{{ soundcheck.told.value }}</p>
    </div>
    <div
      class="min-w-0 max-rail:mt-5 rail:min-h-0 rail:overflow-y-auto column:contents"
      tabindex="0"
      aria-label="Gauge and readings"
    >
      <div class="min-w-0 column:min-h-0 column:overflow-y-auto" :tabindex="0" aria-label="Gauge">
        <OwnTask><GaugePanel ref="panel" :gauge="gauge" :taking="take" /></OwnTask>
        <OwnTask>
          <ReadingSays />
          <ByEar />
        </OwnTask>
      </div>
      <div
        class="min-w-0 space-y-5 max-column:mt-5 column:min-h-0 column:overflow-y-auto"
        :tabindex="0"
        aria-label="Readings"
      >
        <ReadingsList />
        <MeasureNextPanel v-if="view.sureness" />
        <OwnTask><CautionsPanel /></OwnTask>
        <section aria-labelledby="meters-title">
          <h2 id="meters-title" class="border-b border-ink pb-0.5">Meters differ</h2>
          <p class="mt-1 text-muted">
            The gauge reads sample peaks. A VU needle follows the average, 8 to 14 dB lower. A light only says “above”.
            Of three colours only the last means clipping (common practice). Say which one was read: one whose
            ballistics are not known is worth ± 3 dB.
          </p>
        </section>
      </div>
    </div>
    <MarkDialog v-if="marking" :name="`After the soundcheck`" @made="marked" @close="marking = null" />
  </div>
</template>
