<script setup lang="ts">
import { computed } from 'vue'
import { routeTime } from '#core/latency/route-words'
import type { Route } from '#core/latency/routes'
import { celsius, formatDecimal, speedOfSound } from '#core/units'
import FigureButton from '~/shared/explaining/FigureButton.vue'
import { routePartWords } from '~/shared/timing/route-words'

/** The parts of a route to scale, and how far away in air that would be. */
const props = defineProps<{ route: Route; temperature: number; longest: number; name: string }>()
const parts = computed(() => props.route.parts.filter((part) => part.milliseconds > 0))
const metres = computed(() => (props.route.milliseconds / 1000) * speedOfSound(celsius(props.temperature)))
const width = (ms: number) => `${(100 * ms) / Math.max(props.longest, 0.01)}%`
type Part = Route['parts'][number]
const label = ({ name, milliseconds }: Part) => `${routePartWords[name]} ${formatDecimal(milliseconds, 2)}`
/** A letter’s part of the narrowest bar: a label that is longer than its piece is left to the bar’s title. */
const LETTER = 0.014
const fits = (text: string, ms: number) => ms / props.longest > LETTER * text.length
const TONES = ['bg-body text-on-body', 'bg-floor text-paper', 'bg-ink text-paper']
</script>

<template>
  <div :data-route-bar="route.route">
    <p class="flex justify-between">
      <span class="font-semibold">{{ name }}</span><span
        ><FigureButton class="figure font-semibold" :figure="route.route" :name="`${name}, ${routeTime(route)}`">{{
          routeTime(route)
        }}</FigureButton
        ><template v-if="!route.atLeast"
          >, as far as <span class="figure">{{ formatDecimal(metres, 2) }}</span> m of air</template
        ></span
      >
    </p>
    <div
      class="mt-0.5 flex h-6 w-full bg-sheet"
      role="img"
      :aria-label="
        parts.map((part) => `${routePartWords[part.name]} ${formatDecimal(part.milliseconds, 2)} ms`).join(', ')
      "
    >
      <span
        v-for="(part, i) in parts"
        :key="part.name"
        class="flex min-w-0 items-center justify-center overflow-hidden border-r border-paper text-[11px] whitespace-nowrap"
        :class="TONES[i % TONES.length]"
        :style="{ width: width(part.milliseconds) }"
        :title="`${routePartWords[part.name]} ${formatDecimal(part.milliseconds, 2)} ms`"
        ><template v-if="fits(label(part), part.milliseconds)">{{ label(part) }}</template></span
      >
    </div>
  </div>
</template>
