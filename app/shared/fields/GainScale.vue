<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { gainToPosition, positionInWords } from '#core/chain/knob'
import { formatDecimal } from '#core/units'
import type { Turned } from '~/composables/turned'
import { useGainGesture } from '~/composables/use-gain-gesture'

/** A gain as a slide-rule scale: filled pointer where it is set, open pointer where the plan wants it. */
const props = defineProps<{ control: Turned; planned: number | null; name: string; narrow?: boolean; bare?: boolean }>()

const gesture = useGainGesture(toRef(props, 'control'))
const track = ref<HTMLElement | null>(null)
let from = 0

const range = computed(() => Math.max(props.control.range.gainMax - props.control.range.gainMin, 1e-9))
const place = (gain: number) => `${(100 * (gain - props.control.range.gainMin)) / range.value}%`
const spacing = computed(
  () => [1, 2, 5, 10, 20, 50].find((step) => range.value / step <= (props.narrow ? 6 : 13)) ?? 100,
)
const marks = computed(() => {
  const { gainMin, gainMax } = props.control.range
  const first = Math.ceil(gainMin / spacing.value)
  return Array.from({ length: Math.floor(gainMax / spacing.value) - first + 1 }, (_, i) => (first + i) * spacing.value)
})
const knob = computed(() => {
  const position = props.control.knob && gainToPosition(props.control.knob, props.control.value)
  return position ? positionInWords(position) : null
})

function down(event: PointerEvent) {
  if (event.button !== 0) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  from = event.clientX
  gesture.begin()
}
const move = (event: PointerEvent) =>
  gesture.drag(((event.clientX - from) / (track.value?.clientWidth || 1)) * range.value)
</script>

<template>
  <div
    ref="track"
    class="relative touch-none pointer-coarse:h-11 select-none"
    role="slider"
    tabindex="0"
    data-gain
    :aria-label="name"
    :aria-valuemin="control.range.gainMin"
    :aria-valuemax="control.range.gainMax"
    :aria-valuenow="control.value"
    :aria-valuetext="`${formatDecimal(control.value, 1)} dB${knob ? `, knob at ${knob}` : ''}`"
    :class="[
      gesture.dragging.value ? 'cursor-grabbing' : 'cursor-ew-resize',
      narrow ? 'mx-1' : 'mx-3',
      bare ? '-mt-1.5 h-7' : 'h-10',
    ]"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="gesture.end"
    @pointercancel="gesture.cancel"
    @keydown="gesture.key"
  >
    <div class="absolute inset-x-0 top-4 border-t border-muted" />
    <div
      v-for="(mark, i) in marks"
      :key="mark"
      class="absolute top-2.5 h-1.5 border-l border-muted"
      :style="{ left: place(mark) }"
    >
      <span
        v-if="!bare && i % 2 === 0 && !(narrow && i % 4 !== 0)"
        class="figure absolute top-4.5 left-0 -translate-x-1/2 text-[10.5px] text-muted"
        >{{ formatDecimal(mark, 0) }}</span
      >
    </div>
    <svg
      v-if="planned !== null"
      class="absolute top-0.5 size-3 -translate-x-1/2 fill-none stroke-ceiling"
      :style="{ left: place(planned) }"
      viewBox="0 0 12 12"
    >
      <title>planned</title>
      <path d="M1 2h10L6 10z" stroke-width="1.5" />
    </svg>
    <svg
      class="absolute top-4 size-3.5 -translate-x-1/2 fill-change"
      :style="{ left: place(control.value) }"
      viewBox="0 0 12 12"
    >
      <title>set</title>
      <path d="M6 1l5.5 10H.5z" />
    </svg>
  </div>
</template>
