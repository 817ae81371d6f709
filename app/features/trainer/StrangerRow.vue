<script setup lang="ts">
import { computed } from 'vue'
import { formatDecimal } from '#core/units'
import type { LaneState } from '#core/watch/state'
import { readOf } from '#core/watch/state'
import type { WatchedLane } from '~/composables/use-watch'

/** One input of the exercise: its meter with the window, its gain, and how it stands. */
const props = defineProps<{ watched: WatchedLane; isOver: boolean }>()
const emit = defineEmits<{ turn: [by: number] }>()
const lane = computed(() => props.watched.lane)

/** The meter shows from here to full scale, dBFS. */
const LOWEST = -66
const part = (level: number) => `${(100 * (Math.max(LOWEST, Math.min(0, level)) - LOWEST)) / -LOWEST}%`
const target = computed(() => lane.value.window)
/** What the window is for: the peak, the peak with the surge that the take will add, or the average of the loudest passage. */
const reads = computed(() => lane.value.window?.reads ?? 'peak')
const READS = { 'peak': 'peak', 'surge-peak': 'peak and surge', 'average': 'loudest average' } as const
const read = computed(() => (props.watched.snapshot ? readOf(lane.value, props.watched.snapshot) : null))
const now = computed(() => {
  const { peak = null, average = null } = props.watched.snapshot?.now ?? {}
  if (reads.value === 'average') return average
  return peak === null ? null : peak + (reads.value === 'surge-peak' ? lane.value.surge : 0)
})
const WORDS: Record<LaneState, string> = {
  'waiting': 'not heard yet',
  'silent': 'silent',
  'low': 'low',
  'in-window': '✓ in its window',
  'hot': 'hot',
  'clipped': 'clipped',
  'faulty': 'far off',
}
const STEPS = [-6, -1, 1, 6] as const
const label = computed(
  () =>
    `${lane.value.name}: ${READS[reads.value]} ${read.value === null ? 'none' : `${formatDecimal(read.value, 1)} dBFS`}, window ${formatDecimal(target.value?.low ?? null, 0)} to ${formatDecimal(target.value?.high ?? null, 0)} dBFS`,
)
</script>

<template>
  <li
    class="grid grid-cols-[6.5rem_minmax(0,1fr)] items-center gap-x-3 gap-y-1 border-b border-line py-1.5"
    :data-stranger="lane.strip"
    :data-state="watched.state"
  >
    <strong>{{ lane.name }}</strong>
    <div class="relative h-4 border border-rule bg-sheet" role="img" :aria-label="label">
      <span
        v-if="target"
        class="absolute inset-y-0 border-x-2 border-change bg-change/15"
        data-window
        :style="{ left: part(target.low), width: `calc(${part(target.high)} - ${part(target.low)})` }"
      ></span>
      <span v-if="now !== null" class="absolute inset-y-1 left-0 bg-body" :style="{ width: part(now) }"></span>
      <span v-if="read !== null" class="absolute inset-y-0 w-0.5 bg-ink" :style="{ left: part(read) }"></span>
    </div>
    <span class="text-muted" data-word>{{ WORDS[watched.state] }}</span>
    <span class="flex flex-wrap items-baseline gap-x-2 gap-y-1">
      <span class="figure w-24" :title="READS[reads]">{{
        read === null ? '–' : `${formatDecimal(read, 1)} dBFS`
      }}</span>
      <span class="w-20">{{ lane.gain }}</span>
      <span v-if="!isOver" class="flex gap-2 max-card:basis-full">
        <button
          v-for="by in STEPS"
          :key="by"
          type="button"
          class="push figure"
          :aria-label="`${lane.name}: ${Math.abs(by)} dB ${by > 0 ? 'up' : 'down'}`"
          @click="emit('turn', by)"
        >
          {{ by > 0 ? '+' : '−' }}{{ Math.abs(by) }}
        </button>
      </span>
    </span>
  </li>
</template>
