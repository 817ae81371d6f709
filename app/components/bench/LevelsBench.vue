<script setup lang="ts">
import { computed, ref } from 'vue'
import { takeCheck } from '#core/measure/take-check'
import { inForce, withMeasurement } from '#core/session'
import { formatDecimal, formatShort } from '#core/units'
import { useMeasuring } from '~/composables/use-measuring'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useStripStages } from '~/composables/use-strip-stages'
import { useViewStore } from '~/stores/view'
import FilePick from './FilePick.vue'
import MeasuringLine from './MeasuringLine.vue'

/** What is in a recording, channel by channel; and, as a rehearsal of the strip, its source’s level and crest. */
const view = useViewStore()
const edit = useStageEdit()
const { stages } = useStripStages()
const { progress, trouble, name, result, start, cancel } = useMeasuring<'levels'>()
const channel = ref(0)
const kept = ref<string | null>(null)

const report = computed(() => (result.value?.ok ? result.value.report : null))
const fault = computed(() => trouble.value ?? (result.value && !result.value.ok ? result.value.fault.message : null))
const rows = [
  { key: 'peak', title: 'Peak, dBFS' }, { key: 'truePeak', title: 'True peak, dBTP' }, { key: 'rms', title: 'RMS, dBFS' }, { key: 'rmsA', title: 'A-weighted, dBFS' }, { key: 'crest', title: 'Crest, dB' },
  { key: 'dc', title: 'DC, dBFS' }, { key: 'floor', title: 'Quietest second' }, { key: 'integrated', title: 'Loudness, LUFS' }, { key: 'momentaryMax', title: 'Momentary max' }, { key: 'shortTermMax', title: 'Short-term max' }, { key: 'range', title: 'Range, LU' },
] as const
const open = (file: File) => {
  kept.value = null
  channel.value = 0
  start(file.name, { kind: 'levels', file })
}

const source = computed(() => (stages.value[0]?.kind === 'sound-source' ? stages.value[0] : null))
const end = computed(() => view.evaluated?.points.at(-1) ?? null)
const take = computed(() => {
  const found = report.value?.channels[channel.value]
  if (!source.value || end.value?.unit !== 'dBFS' || found?.rms == null || found.peak === null) return null
  return takeCheck(inForce(source.value.gear), end.value, { rms: found.rms, peak: found.peak })
})
function keep() {
  const [gear, values] = [source.value?.gear, take.value]
  if (!gear || !values) return
  const method = `Take check of ${name.value}`.slice(0, 200)
  const rounded = (value: number) => Math.round(10 * value) / 10
  kept.value = edit.gear(gear.id, 'sound-source')('Take check', (item) => withMeasurement(withMeasurement(item, 'level', { value: rounded(values.level), method }), 'crest', { value: rounded(values.crest), method }))
    ?? 'Kept as measured; the printed values stay beside them.'
}
</script>

<template>
  <section aria-labelledby="levels-title" data-levels>
    <h2 id="levels-title" class="border-b border-ink pb-0.5">A recording’s levels, and take check</h2>
    <div class="mt-1.5"><FilePick label="Choose a recording" @file="open" /></div>
    <MeasuringLine :name="name" :progress="progress" :trouble="fault" @cancel="cancel" />
    <template v-if="report">
      <p class="mt-1"><strong>{{ name }}</strong>: {{ report.format.channels }} × {{ formatShort(report.format.sampleRate / 1000) }} kHz, {{ report.format.bits }} bits{{ report.format.encoding === 'float' ? ' float' : '' }}, {{ formatDecimal(report.format.seconds, 2) }} s. Together <span class="figure">{{ formatDecimal(report.programme.integrated, 1) }}</span> LUFS.</p>
      <p v-for="remark in report.remarks" :key="remark" class="text-ceiling">{{ remark }}</p>
      <div class="overflow-x-auto" tabindex="0" aria-label="Levels by channel">
        <table class="mt-1 w-full text-right">
          <thead><tr class="border-b border-ink"><th scope="col" class="py-1 text-left font-semibold">Channel</th><th v-for="(_, i) in report.channels" :key="i" scope="col" class="pl-3 font-semibold">{{ i + 1 }}</th></tr></thead>
          <tbody>
            <tr v-for="row in rows" :key="row.key" class="border-b border-line"><th scope="row" class="py-0.5 text-left font-normal">{{ row.title }}</th><td v-for="(each, i) in report.channels" :key="i" class="figure pl-3" :data-level="`${i + 1}.${row.key}`">{{ formatDecimal(each[row.key], 2) }}</td></tr>
            <tr><th scope="row" class="py-0.5 text-left font-normal">Clipped runs</th><td v-for="(each, i) in report.channels" :key="i" class="figure pl-3" :class="{ 'font-semibold text-ceiling': each.clippedRunCount > 0 }">{{ each.clippedRunCount }}<template v-if="each.clippedRuns[0]">, first at {{ formatDecimal(each.clippedRuns[0].seconds, 2) }} s</template></td></tr>
          </tbody>
        </table>
      </div>
      <div v-if="take" class="plate mt-2 px-2 py-1" data-take>
        <p>As a rehearsal of <strong>{{ view.strip?.name }}</strong>, channel <select v-model="channel" class="bg-sheet" aria-label="Channel of the rehearsal"><option v-for="(_, i) in report.channels" :key="i" :value="i">{{ i + 1 }}</option></select>, recorded with the gains as they are set:
          its source is at <span class="figure">{{ formatDecimal(take.level, 1) }}</span> dB SPL with a crest of <span class="figure">{{ formatDecimal(take.crest, 1) }}</span> dB. <button type="button" class="action" @click="keep">Keep as measured</button></p>
        <p v-if="kept" role="status" class="text-muted">{{ kept }}</p>
      </div>
    </template>
  </section>
</template>
