<script setup lang="ts">
import { toRef } from 'vue'
import { formatDecimal } from '#core/units'
import type { Turned } from '~/composables/turned'
import { useGainGesture } from '~/composables/use-gain-gesture'

/** Anything in dB that is turned by dragging it up and down, or with the arrow keys; how it looks is for its caller. */
const props = defineProps<{ control: Turned; pixelsPerDb: number; name: string }>()
const gesture = useGainGesture(toRef(props, 'control'))
let from = 0

function down(event: PointerEvent) {
  if (event.button !== 0) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  from = event.clientY
  gesture.begin()
}
const move = (event: PointerEvent) => gesture.drag((from - event.clientY) / props.pixelsPerDb)
</script>

<template>
  <span
    class="touch-none text-change select-none print:hidden"
    :class="gesture.dragging.value ? 'cursor-grabbing' : 'cursor-ns-resize'"
    role="slider"
    tabindex="0"
    :aria-label="name"
    aria-orientation="vertical"
    :aria-valuemin="control.range.gainMin"
    :aria-valuemax="control.range.gainMax"
    :aria-valuenow="control.value"
    :aria-valuetext="`${formatDecimal(control.value, 1)} dB`"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="gesture.end"
    @pointercancel="gesture.cancel"
    @keydown="gesture.key"
  >
    <slot />
  </span>
</template>
