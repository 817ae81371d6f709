<script setup lang="ts">
import { MoveVertical } from '@lucide/vue'
import { toRef } from 'vue'
import type { ResolvedInput } from '#core/chain/resolve'
import { formatDecimal } from '#core/units'
import { useGainGesture } from '~/composables/use-gain-gesture'

/** A gain held at the step it makes in the section: dragging lifts or lowers everything behind it, dB for dB. */
const props = defineProps<{ input: ResolvedInput, pixelsPerDb: number }>()

const gesture = useGainGesture(toRef(props, 'input'))
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
    class="absolute flex -translate-x-1/2 -translate-y-1/2 touch-none items-center gap-0.5 rounded-full border-2 border-change bg-sheet py-0.5 pr-2.5 pl-1 font-semibold text-change select-none print:hidden"
    :class="gesture.dragging.value ? 'cursor-grabbing' : 'cursor-ns-resize'"
    role="slider" tabindex="0" aria-label="Gain in the section" aria-orientation="vertical" data-gain-handle
    :aria-valuemin="input.specs.gainMin" :aria-valuemax="input.specs.gainMax" :aria-valuenow="input.gain" :aria-valuetext="`${formatDecimal(input.gain, 1)} dB`"
    @pointerdown="down" @pointermove="move" @pointerup="gesture.end" @pointercancel="gesture.cancel" @keydown="gesture.key"
  >
    <MoveVertical class="size-3.5" aria-hidden="true" /><span class="figure">{{ formatDecimal(input.gain, 1) }} dB</span>
  </div>
</template>
