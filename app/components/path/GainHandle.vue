<script setup lang="ts">
import { MoveVertical } from '@lucide/vue'
import { toRef } from 'vue'
import { formatDecimal } from '#core/units'
import type { Turned } from '~/composables/turned'
import { useGainGesture } from '~/composables/use-gain-gesture'

/** A gain held at the step it makes in the section: dragging lifts or lowers everything behind it, dB for dB. */
const props = defineProps<{ control: Turned; pixelsPerDb: number; name: string; small: boolean }>()

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
  <div
    class="absolute flex -translate-x-1/2 -translate-y-1/2 touch-none items-center gap-0.5 rounded-full border-2 border-change bg-sheet font-semibold text-change select-none print:hidden pointer-coarse:min-h-11 pointer-coarse:min-w-11 pointer-coarse:justify-center"
    :class="[
      gesture.dragging.value ? 'cursor-grabbing' : 'cursor-ns-resize',
      small ? 'min-h-6 px-1 text-[11px]' : 'py-0.5 pr-2.5 pl-1',
    ]"
    role="slider"
    tabindex="0"
    :aria-label="`${name} in the section`"
    aria-orientation="vertical"
    data-gain-handle
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
    <MoveVertical v-if="!small" class="size-3.5" aria-hidden="true" /><span class="figure"
      >{{ formatDecimal(control.value, 1) }}<template v-if="!small"> dB</template></span
    >
  </div>
</template>
