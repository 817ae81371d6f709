<script setup lang="ts">
import { lateComponent } from '~/shared/ui/late-component'
import { computed, ref } from 'vue'
import { rehearsalOn } from '#core/bench/take-check'
import type { Take } from '#core/simulated/record'
import { formatDecimal, formatShort } from '#core/units'
import { useMeasuring } from '~/composables/use-measuring'
import { useBenchStore } from '~/stores/bench'
import { useViewStore } from '~/stores/view'
import BroadcastLines from './BroadcastLines.vue'
import FilePick from '~/shared/recordings/FilePick.vue'
import LevelsTable from './LevelsTable.vue'
import MeasuringLine from '~/shared/recordings/MeasuringLine.vue'
import SimulatedNumber from './SimulatedNumber.vue'
import TakeCheck from './TakeCheck.vue'

// In a task of its own: figures and drawings at once would hold the page up for more than three frames.
const StretchView = lateComponent(() => import('./StretchView.vue'))

/** What is in a recording, channel by channel, over time and over frequency; and what it says as a rehearsal of the strip. */
const store = useBenchStore()
const view = useViewStore()
const { progress, trouble, name, measure, cancel } = useMeasuring()
const channel = ref(0)
const report = computed(() => store.recording?.report ?? null)

async function open(title: string, source: Blob | Take) {
  store.recording = null
  const found = await measure(title, { question: { kind: 'levels' }, recording: source })
  if (!found) return
  channel.value = 0
  store.recording = { name: title, source, report: found.report }
}
const rehearsal = computed(() =>
  store.simulated && store.bench && view.strip
    ? rehearsalOn(store.simulated, store.bench.session, view.strip.id)
    : null,
)
const practice = computed(() => store.recording !== null && !(store.recording.source instanceof Blob))
const own = computed(() => report.value?.channels[channel.value] ?? null)
</script>

<template>
  <section aria-labelledby="levels-title" data-levels>
    <h2 id="levels-title" class="border-b border-ink pb-1 text-[15px]">Recording and take check</h2>
    <div class="mt-1.5"><FilePick label="Choose a recording" @files="([file]) => file && open(file.name, file)" /></div>
    <p v-if="rehearsal" class="mt-1.5 flex items-baseline gap-3">
      <button
        type="button"
        class="push"
        @click="open(`rehearsal on simulated interface ${store.simulatedNumber}`, rehearsal)"
      >
        Try it on the simulated interface</button
      ><SimulatedNumber />
    </p>
    <MeasuringLine :name="name" :progress="progress" :trouble="trouble" @cancel="cancel" />
    <p v-if="!report && progress === null" class="mt-2 max-w-2xl text-muted">
      Give it a rehearsal, a take or anything else. It shows levels, loudness and clipping of every channel, the level
      over time and the spectrum of any stretch. For a rehearsal of the selected strip it also tells the source’s level
      and the risk of clipping.
    </p>
    <template v-if="store.recording && report && own">
      <p class="mt-1">
        <strong>{{ store.recording.name }}</strong>: {{ report.format.channels }} ×
        {{ formatShort(report.format.sampleRate / 1000) }} kHz, {{ report.format.bits }} bits{{
          report.format.encoding === 'float' ? ' float' : ''
        }}, {{ formatDecimal(report.format.seconds, 2) }} s. Together
        <span class="figure">{{ formatDecimal(report.programme.integrated, 1) }}</span> LUFS.
      </p>
      <BroadcastLines
        v-if="report.format.broadcast"
        :broadcast="report.format.broadcast"
        :sample-rate="report.format.sampleRate"
      />
      <p v-for="remark in report.remarks" :key="remark" class="text-ceiling">{{ remark }}</p>
      <div class="mt-1 grid rail:grid-cols-[minmax(0,22rem)_minmax(0,1fr)] gap-x-8">
        <div class="space-y-2">
          <LevelsTable v-model="channel" :report="report" :name="store.recording?.name ?? ''" />
        </div>
        <div class="min-w-0 space-y-2">
          <TakeCheck
            :key="`${store.recording.name} ${channel}`"
            :channel="own"
            :number="channel + 1"
            :name="store.recording.name"
            :practice="practice"
          />
          <StretchView
            :key="`${store.recording.name} ${channel}`"
            :source="store.recording.source"
            :name="store.recording.name"
            :overview="own.overview"
            :seconds="report.format.seconds"
            :channel="channel + 1"
          />
        </div>
      </div>
    </template>
  </section>
</template>
