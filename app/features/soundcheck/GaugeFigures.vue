<script setup lang="ts">
import { computed } from 'vue'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import { formatDecimal } from '#core/units'

/** What the gauge shows, in figures: of the passage since it began, and of the last seconds. */
const props = defineProps<{ snapshot: LiveSnapshot | null }>()

const figures = computed(() => {
  const now = props.snapshot
  const level = (value: number | null | undefined) => (value == null ? '–' : formatDecimal(value, 1))
  return [
    { name: 'Peak, held', value: level(now?.passage.peak), unit: 'dBFS', key: 'peak' },
    { name: 'True peak', value: level(now?.passage.truePeak), unit: 'dBTP', key: 'true-peak' },
    { name: 'Loudest 3 s', value: level(now?.passage.loudest), unit: 'dBFS', key: 'loudest' },
    { name: 'Average', value: level(now?.passage.average), unit: 'dBFS', key: 'average' },
    { name: 'Crest factor', value: level(now?.passage.crest), unit: 'dB', key: 'crest' },
    { name: 'Momentary', value: level(now?.momentary), unit: 'LUFS', key: 'momentary' },
    { name: 'Short-term', value: level(now?.shortTerm), unit: 'LUFS', key: 'short-term' },
    { name: 'Integrated', value: level(now?.passage.integrated), unit: 'LUFS', key: 'integrated' },
    { name: 'Floor', value: level(now?.floor), unit: 'dBFS(A)', key: 'floor' },
    { name: 'Clipped', value: String(now?.passage.clippedRuns ?? 0), unit: 'runs', key: 'clipped' },
  ]
})
</script>

<template>
  <dl class="grid grid-cols-2 gap-x-4 gap-y-1 card:grid-cols-5" data-figures>
    <div v-for="each in figures" :key="each.key">
      <dt class="text-xs text-muted">{{ each.name }}</dt>
      <dd>
        <strong class="figure text-base" :data-figure="each.key">{{ each.value }}</strong>
        <span class="figure text-muted">{{ ' ' + each.unit }}</span>
      </dd>
    </div>
  </dl>
</template>
