<script setup lang="ts">
import { Trash2 } from '@lucide/vue'
import { computed } from 'vue'
import { formatDecimal, formatShort } from '#core/units'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useTimingStore } from '~/stores/timing'

/** All that was measured, reported and tried, each with its way out. */
const store = useSessionStore()
const timing = useTimingStore()
const edit = useSystemEdit()
const place = (each: { sampleRate: number; bufferFrames: number }) =>
  `${formatShort(each.sampleRate / 1000)} kHz, ${each.bufferFrames}`
/** Whose a measurement is, where it is not this unit’s and so does not count here. */
function ofAnother(unit: string | undefined): string {
  if (unit === undefined || unit === timing.unit?.id) return ''
  return `, of ${store.session?.gear.find(({ id }) => id === unit)?.name ?? 'a unit that is not here'}; not counted here`
}
const rows = computed(() => {
  const { roundTrips = [], reported = [], loads = [], trials = [] } = store.session?.system ?? {}
  return [
    ...roundTrips.map((each, index) => ({
      list: 'roundTrips' as const,
      index,
      where: place(each),
      what: `round trip ${formatDecimal(each.milliseconds, 2)} ms${ofAnother(each.unit)}`,
    })),
    ...reported.map((each, index) => ({
      list: 'reported' as const,
      index,
      where: place(each),
      what: `driver: in ${formatDecimal(each.inMs, 2)}, out ${formatDecimal(each.outMs, 2)} ms`,
    })),
    ...loads.map((each, index) => ({
      list: 'loads' as const,
      index,
      where: place(each),
      what: `load ${formatShort(each.percent, 1)} %`,
    })),
    ...trials.map((each, index) => ({
      list: 'trials' as const,
      index,
      where: place(each),
      what:
        each.dropouts > 0
          ? `${each.dropouts} dropouts in ${formatShort(each.minutes)} min`
          : `ran ${formatShort(each.minutes)} min${each.note ? `, ${each.note}` : ''}`,
    })),
  ]
})
</script>

<template>
  <ul class="max-h-28 overflow-y-auto" tabindex="0" aria-label="Measurements">
    <li
      v-for="row in rows"
      :key="row.list + row.index"
      class="flex items-baseline justify-between gap-3 border-b border-line py-0.5"
      data-measurement
    >
      <span
        ><span class="figure text-muted">{{ row.where }}</span> {{ row.what }}</span
      >
      <button
        type="button"
        class="icon-button"
        :aria-label="`Remove ${row.what}`"
        @click="edit.remove('Remove a measurement', row.list, row.index)"
      >
        <Trash2 class="size-3.5" aria-hidden="true" />
      </button>
    </li>
    <li v-if="rows.length === 0" class="text-muted">
      Nothing is measured yet: the map shows
      {{ timing.unit?.latency ? 'the model of the data sheet' : 'the buffers alone' }}. Measure it with a loopback cable
      from an output to an input.
    </li>
  </ul>
</template>
