<script setup lang="ts">
import { computed } from 'vue'
import { EUROPEAN, nioshHours, weeklyHours } from '#core/monitoring/exposure'
import type { EarLevel } from '#core/monitoring/monitor-session'
import { formatDecimal } from '#core/units'

/** The level at the ear on a ladder of how long one may listen to it: average, peaks over it, and the end of the volume. */
const props = defineProps<{ ear: EarLevel }>()

const BOTTOM = 50
const top = computed(() => Math.max(110, Math.ceil((props.ear.peak + 3) / 10) * 10))
const y = (level: number) =>
  `${100 - (100 * (Math.min(top.value, Math.max(BOTTOM, level)) - BOTTOM)) / (top.value - BOTTOM)}%`

const time = (hours: number) => (hours >= 1 ? `${formatDecimal(hours, 0)} h` : `${formatDecimal(60 * hours, 0)} min`)
/** What stands at its place, whatever is heard. */
const RUNGS = [
  { level: 100, words: `${time(nioshHours(100))} a day` },
  { level: 94, words: `${time(nioshHours(94))} a day` },
  { level: EUROPEAN.upper, words: `${time(nioshHours(85))} a day, upper action value` },
  { level: EUROPEAN.lower, words: `${time(weeklyHours(80))} a week, lower action value` },
]
const now = computed(() => [
  { level: props.ear.average, words: 'average now', strong: true },
  { level: props.ear.peak, words: 'peaks now', strong: false },
  { level: props.ear.fullyUp, words: 'average at full volume', strong: false },
])
/** Words keep apart: each is pushed below the one before it, in parts of the height. */
const GAP = 6.4
const labels = computed(() => {
  let last = -Infinity
  return [
    ...RUNGS.map((each) => ({ ...each, strong: false, live: false })),
    ...now.value.map((each) => ({ ...each, live: true })),
  ]
    .sort((a, b) => b.level - a.level)
    .map((each) => {
      const at = Math.max(Number.parseFloat(y(each.level)), last + GAP)
      last = at
      return { ...each, at: `${at}%` }
    })
})
</script>

<template>
  <div
    class="relative mt-3 mb-2 h-72"
    role="img"
    :aria-label="`At the ear ${formatDecimal(ear.average, 1)} dBA average, ${formatDecimal(ear.peak, 1)} dB peaks; the table of times is below.`"
    data-ladder
  >
    <div class="absolute inset-y-0 left-10 w-7 overflow-hidden border border-ink bg-sheet">
      <div class="peaks absolute inset-x-0" :style="{ top: y(ear.peak), bottom: 0 }" />
      <div class="absolute inset-x-0 bottom-0 bg-body" :style="{ top: y(ear.average) }" />
      <div class="over absolute inset-x-0 top-0" :style="{ bottom: `calc(100% - ${y(EUROPEAN.upper)})` }" />
    </div>
    <template v-for="each in labels" :key="each.words">
      <span
        class="absolute left-9 w-9 border-t"
        :class="each.live ? 'border-change' : 'border-ink'"
        :style="{ top: y(each.level) }"
      />
      <span
        class="figure absolute left-0 w-8 -translate-y-1/2 text-right text-[11px]"
        :class="each.live ? 'font-semibold text-change' : 'text-muted'"
        :style="{ top: each.at }"
        >{{ formatDecimal(each.level, each.live ? 1 : 0) }}</span
      >
      <span
        class="absolute left-20 right-0 -translate-y-1/2 text-xs leading-tight"
        :class="each.strong ? 'font-semibold' : each.live ? '' : 'text-muted'"
        :style="{ top: each.at }"
        >{{ each.words }}</span
      >
    </template>
  </div>
</template>

<style scoped>
.peaks {
  background: var(--lip);
}
.over {
  background: repeating-linear-gradient(
    135deg,
    transparent 0 5px,
    color-mix(in srgb, var(--ceiling) 55%, transparent) 5px 6px
  );
}
</style>
