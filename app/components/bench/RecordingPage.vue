<script setup lang="ts">
import { computed, ref } from 'vue'
import { formatDecimal, formatShort } from '#core/units'
import { useMeasuring } from '~/composables/use-measuring'
import { useBenchStore } from '~/stores/bench'
import BroadcastLines from './BroadcastLines.vue'
import FilePick from './FilePick.vue'
import LevelsTable from './LevelsTable.vue'
import MeasuringLine from './MeasuringLine.vue'
import StretchView from './StretchView.vue'
import TakeCheck from './TakeCheck.vue'

/** What is in a recording, channel by channel, over time and over frequency; and what it says as a rehearsal of the strip. */
const store = useBenchStore()
const { progress, trouble, name, measure, cancel } = useMeasuring()
const channel = ref(0)
const report = computed(() => store.recording?.report ?? null)

async function open(file: File) {
  store.recording = null
  const found = await measure(file.name, { question: { kind: 'levels' }, recording: file })
  if (!found) return
  channel.value = 0
  store.recording = { name: file.name, file, report: found.report }
}
const own = computed(() => report.value?.channels[channel.value] ?? null)
</script>

<template>
  <section aria-labelledby="levels-title" data-levels>
    <h2 id="levels-title" class="border-b border-ink pb-1 text-[15px]">Recording and take check</h2>
    <div class="mt-1.5"><FilePick label="Choose a recording" @files="([file]) => file && open(file)" /></div>
    <MeasuringLine :name="name" :progress="progress" :trouble="trouble" @cancel="cancel" />
    <p v-if="!report && progress === null" class="mt-2 max-w-2xl text-muted">Give it a rehearsal, a take or anything else: levels, loudness and clipping of every channel, the level over time, the spectrum of any stretch; and, as a rehearsal of the strip that is selected on the left, the source’s level and the chance that the take clips.</p>
    <template v-if="store.recording && report && own">
      <p class="mt-1"><strong>{{ store.recording.name }}</strong>: {{ report.format.channels }} × {{ formatShort(report.format.sampleRate / 1000) }} kHz, {{ report.format.bits }} bits{{ report.format.encoding === 'float' ? ' float' : '' }}, {{ formatDecimal(report.format.seconds, 2) }} s. Together <span class="figure">{{ formatDecimal(report.programme.integrated, 1) }}</span> LUFS.</p>
      <BroadcastLines v-if="report.format.broadcast" :broadcast="report.format.broadcast" :sample-rate="report.format.sampleRate" />
      <p v-for="remark in report.remarks" :key="remark" class="text-ceiling">{{ remark }}</p>
      <div class="mt-1 grid grid-cols-[minmax(0,22rem)_minmax(0,1fr)] gap-x-8">
        <div class="space-y-2">
          <LevelsTable v-model="channel" :report="report" />
        </div>
        <div class="min-w-0 space-y-2">
          <TakeCheck :key="`${store.recording.name} ${channel}`" :channel="own" :number="channel + 1" :name="store.recording.name" />
          <StretchView :key="`${store.recording.name} ${channel}`" :file="store.recording.file" :overview="own.overview" :seconds="report.format.seconds" :channel="channel + 1" />
        </div>
      </div>
    </template>
  </section>
</template>
