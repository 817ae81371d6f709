<script setup lang="ts">
import { ref } from 'vue'
import type { Strip } from '#core/model'
import type { Take } from '#core/session'
import { useLog } from '~/composables/use-log'
import { useMeasuring } from '~/composables/use-measuring'
import { useVirtualList } from '~/composables/use-virtual-list'
import TakeRow from './TakeRow.vue'

/** The takes, the newest first; of thousands only those in sight are on the page. */
const props = defineProps<{ takes: readonly Take[]; recording: readonly Strip[] }>()
const log = useLog()
const measuring = useMeasuring()
const told = ref<string | null>(null)

/** A row that was not measured yet, px. */
const USUAL = 40
const { scroller, shown, above, below, measure } = useVirtualList(() => props.takes, USUAL)

const change = (take: Take, part: Partial<Take>) => void log.changeTake(take, part)

/** Peak and clipped runs of a recording of the take. */
async function takeFile(take: Take, recordingOf: File) {
  const answer = await measuring.measure(recordingOf.name, { recording: recordingOf, question: { kind: 'levels' } })
  if (!answer) {
    told.value = measuring.trouble.value
    return
  }
  const { channels, format: shape } = answer.report
  const peak = Math.max(...channels.map((each) => each.peak ?? -Infinity))
  await log.changeTake(take, {
    ...(Number.isFinite(peak) && { peak: Math.round(100 * peak) / 100 }),
    clippedRuns: channels.reduce((sum, each) => sum + each.clippedRunCount, 0),
    seconds: Math.round(10 * shape.seconds) / 10,
  })
}
</script>

<template>
  <div ref="scroller" class="mt-3 max-h-[70vh] overflow-auto" tabindex="0" aria-label="Takes">
    <table class="w-full min-w-[52rem]" :aria-rowcount="takes.length + 1">
      <thead class="sticky top-0 z-10 bg-paper">
        <tr class="border-b border-ink text-left">
          <th class="py-1 pr-2">Take</th>
          <th class="pr-2">Name</th>
          <th class="pr-2">Strips</th>
          <th class="pr-2 text-right">Began</th>
          <th class="pr-2 text-right">Length</th>
          <th class="pr-2">Verdict</th>
          <th class="pr-2 text-right">Peak, dBFS</th>
          <th class="pr-2 text-right">Clipped</th>
          <th class="pr-2">Mark</th>
          <th class="pr-2">Note</th>
          <th><span class="sr-only">Delete</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="above > 0" aria-hidden="true" :style="{ height: `${above}px` }" />
        <TakeRow
          v-for="{ index, item: take } in shown"
          :key="take.id"
          :ref="measure"
          :take="take"
          :recording="recording"
          :data-index="index"
          @change="(part) => change(take, part)"
          @file="(file) => takeFile(take, file)"
        />
        <tr v-if="below > 0" aria-hidden="true" :style="{ height: `${below}px` }" />
      </tbody>
    </table>
    <p v-if="log.told.value || told" role="alert" class="mt-1 text-ceiling">{{ log.told.value ?? told }}</p>
  </div>
</template>
