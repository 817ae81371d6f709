<script setup lang="ts">
import { computed } from 'vue'
import type { Route } from '#core/latency/routes'
import { formatDecimal } from '#core/units'
import { routePartWords } from '~/components/timing/route-words'

/** A route drawn from the source to the ear: its stations in order, and when the sound is at each. */
const props = defineProps<{
  route: Route
  name: string
  heard: boolean
  from: string
  to: string
  level: string | null
}>()
const stations = computed(() => {
  let at = 0
  return props.route.parts
    .filter((part) => part.milliseconds > 0)
    .map((part) => {
      at += part.milliseconds
      return { word: routePartWords[part.name], at }
    })
})
</script>

<template>
  <div class="plate px-3 py-2" :class="{ 'border-change!': heard }" :data-lane="route.route">
    <p class="flex justify-between">
      <span class="font-semibold">{{ name }}<span v-if="heard" class="font-normal text-change"> · heard</span></span
      ><span
        ><span class="figure font-semibold">{{ formatDecimal(route.milliseconds, 2) }}</span> ms<template
          v-if="level && heard"
        >
          · {{ level }}</template
        ></span
      >
    </p>
    <ol class="mt-1 flex flex-wrap items-center gap-y-1 text-xs">
      <li class="border border-rule bg-paper px-1.5 py-0.5">{{ from }} <span class="figure text-muted">0</span></li>
      <li v-for="station in stations" :key="station.word + station.at" class="flex items-center">
        <span class="px-1 text-muted" aria-hidden="true">→</span
        ><span class="border border-rule bg-paper px-1.5 py-0.5"
          >{{ station.word }} <span class="figure text-muted">{{ formatDecimal(station.at, 2) }}</span></span
        >
      </li>
      <li class="flex items-center">
        <span class="px-1 text-muted" aria-hidden="true">→</span
        ><span class="border border-ink bg-sheet px-1.5 py-0.5">{{ to }}</span>
      </li>
    </ol>
  </div>
</template>
