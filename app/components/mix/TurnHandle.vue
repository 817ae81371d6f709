<script setup lang="ts">
import { MoveVertical } from '@lucide/vue'
import { toRef } from 'vue'
import { formatDecimal } from '#core/units'
import type { Turned } from '~/composables/turned'
import { useGainGesture } from '~/composables/use-gain-gesture'

/** Turns something by dragging up and down, or with the arrow keys; its number stands beside it. */
const props = defineProps<{ control: Turned; name: string }>()
const gesture = useGainGesture(toRef(props, 'control'))
/** px of a decibel: fine enough for a tenth, far enough for a range. */
const PER_DB = 4
let from = 0

function down(event: PointerEvent) {
  if (event.button !== 0) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  from = event.clientY
  gesture.begin()
}
const move = (event: PointerEvent) => gesture.drag((from - event.clientY) / PER_DB)
</script>

<template>
  <span
    class="icon-button touch-none text-change select-none print:hidden"
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
    @keydown.stop="gesture.key"
  >
    <MoveVertical class="size-3.5" aria-hidden="true" />
  </span>
</template>
