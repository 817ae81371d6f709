<script setup lang="ts">
import { computed } from 'vue'
import type { GainControl } from '#core/chain/gain-control'

/** A gain’s range as a line, with where it stands on it and, where the plan wants another, where that would be. */
const props = defineProps<{ control: GainControl; planned: number | null }>()
const WIDTH = 100
const at = (value: number) => {
  const { gainMin, gainMax } = props.control.range
  return gainMax > gainMin ? (WIDTH * (value - gainMin)) / (gainMax - gainMin) : WIDTH / 2
}
const quarters = [0, 0.25, 0.5, 0.75, 1].map((part) => part * WIDTH)
const stands = computed(() => at(props.control.value))
</script>

<template>
  <svg :viewBox="`-5 0 ${WIDTH + 10} 13`" class="ml-auto h-3.5 w-24" aria-hidden="true">
    <path :d="`M0 6.5H${WIDTH} ${quarters.map((x) => `M${x} 4.5V8.5`).join('')}`" stroke="var(--rule)" fill="none" />
    <path
      v-if="planned !== null"
      :d="`M${at(planned)} 5.5l-3.5 -5h7z`"
      fill="none"
      stroke="var(--ceiling)"
      stroke-width="1.2"
      data-planned
    />
    <path :d="`M${stands} 7.5l3.5 5h-7z`" fill="var(--change)" />
  </svg>
</template>
