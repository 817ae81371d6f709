<script setup lang="ts">
import { computed } from 'vue'
import type { GainRange } from '#core/gear'
import { formatDecimal } from '#core/units'

/** Where a control stands, drawn on a short slide rule: a filled pointer where it is set, an open one where it is wanted. */
const props = defineProps<{ value: number; range: GainRange; wanted?: number | null; bare?: boolean }>()

const width = computed(() => Math.max(props.range.gainMax - props.range.gainMin, 1e-9))
const place = (gain: number) => 4 + (192 * (gain - props.range.gainMin)) / width.value
const spacing = computed(() => [1, 2, 5, 10, 20, 50].find((step) => width.value / step <= 7) ?? 100)
const marks = computed(() => {
  const first = Math.ceil(props.range.gainMin / spacing.value)
  const count = Math.floor(props.range.gainMax / spacing.value) - first + 1
  return Array.from({ length: Math.max(0, count) }, (_, i) => (first + i) * spacing.value)
})
</script>

<template>
  <svg
    class="block w-full max-w-60"
    :viewBox="bare ? '0 0 200 18' : '-6 0 212 34'"
    role="img"
    :aria-label="`${formatDecimal(value, 1)} dB of ${formatDecimal(range.gainMin, 0)} to ${formatDecimal(range.gainMax, 0)}${wanted == null ? '' : `, wanted ${formatDecimal(wanted, 1)}`}`"
  >
    <path class="stroke-muted" d="M4 10H196" />
    <g v-for="mark in marks" :key="mark">
      <path class="stroke-muted" :d="`M${place(mark)} 6V10`" />
      <text v-if="!bare" class="figure fill-muted text-[10px]" :x="place(mark)" y="32" text-anchor="middle">
        {{ formatDecimal(mark, 0) }}
      </text>
    </g>
    <path
      v-if="wanted != null"
      class="fill-none stroke-ceiling"
      stroke-width="1.5"
      :d="`M${place(wanted) - 4} 1h8l-4 7z`"
    />
    <path class="fill-change" :d="`M${place(value)} 10l4.5 8h-9z`" />
  </svg>
</template>
