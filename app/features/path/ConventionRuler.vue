<script setup lang="ts">
import { computed } from 'vue'
import type { TargetWindow } from '#core/model'
import { formatDecimal } from '#core/units'

/** A convention's window on the strip's own ruler at the converter, with where this strip would lie: average, peak, surge, floor. */
const props = defineProps<{
  window: TargetWindow
  average: number
  peak: number
  surge: number
  noise: number | null
}>()

const BOTTOM = -100
const TICKS = [0, -20, -40, -60, -80]
const place = (level: number) => `${Math.min(100, Math.max(0, (100 * (level - BOTTOM)) / (6 - BOTTOM)))}%`
const span = (from: number, to: number) => ({ left: place(from), width: `calc(${place(to)} - ${place(from)})` })
const words = computed(
  () =>
    `Window ${formatDecimal(props.window.low, 0)} to ${formatDecimal(props.window.high, 0)} dBFS; average ${formatDecimal(props.average, 1)}, peak ${formatDecimal(props.peak, 1)}, after the surge ${formatDecimal(props.surge, 1)} dBFS`,
)
</script>

<template>
  <div class="relative h-8 min-w-40" role="img" :aria-label="words" :title="words">
    <span
      v-for="tick in TICKS"
      :key="tick"
      class="absolute inset-y-0 border-l border-line"
      :style="{ left: place(tick) }"
    />
    <span class="bank absolute inset-y-0 right-0" :style="{ left: place(0) }" />
    <span v-if="noise !== null" class="absolute top-3 bottom-1 left-0 bg-floor-soft" :style="{ width: place(noise) }" />
    <span class="lip absolute top-3 bottom-1" :style="span(peak, surge)" />
    <span class="absolute top-3 bottom-1 bg-body" :style="span(average, peak)" />
    <span class="absolute top-0 h-2 border-x-2 border-t-2 border-ink" :style="span(window.low, window.high)" />
  </div>
</template>

<style scoped>
.bank {
  background: repeating-linear-gradient(
    135deg,
    transparent 0 4px,
    color-mix(in srgb, var(--ceiling) 50%, transparent) 4px 5px
  );
  border-left: 1.5px solid var(--ceiling);
}
.lip {
  background: var(--lip);
}
</style>
