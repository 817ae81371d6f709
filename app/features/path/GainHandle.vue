<script setup lang="ts">
import { MoveVertical } from '@lucide/vue'
import { formatDecimal } from '#core/units'
import TurnSlider from '~/shared/fields/TurnSlider.vue'
import type { Turned } from '~/composables/turned'

/** A gain held at the step it makes in the section: dragging lifts or lowers everything behind it, dB for dB. */
defineProps<{ control: Turned; pixelsPerDb: number; name: string; small: boolean }>()
</script>

<template>
  <TurnSlider
    class="absolute flex -translate-x-1/2 -translate-y-1/2 items-center gap-0.5 rounded-full border-2 border-change bg-sheet font-semibold pointer-coarse:min-h-11 pointer-coarse:min-w-11 pointer-coarse:justify-center"
    :class="small ? 'min-h-6 px-1 text-[11px]' : 'py-0.5 pr-2.5 pl-1'"
    :control="control"
    :pixels-per-db="pixelsPerDb"
    :name="`${name} in the section`"
    data-gain-handle
  >
    <MoveVertical v-if="!small" class="size-3.5" aria-hidden="true" /><span class="figure"
      >{{ formatDecimal(control.value, 1) }}<template v-if="!small"> dB</template></span
    >
  </TurnSlider>
</template>
