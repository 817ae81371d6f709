<script setup lang="ts">
import { computed } from 'vue'
import type { StripEvaluation } from '#core/evaluation/evaluate-session'
import type { TargetWindow } from '#core/model'
import { drawMini } from '~/shared/section/mini-section'
import { sectionModel } from '~/shared/section/section-model'

/** A strip’s section in small; all of a place share one ruler. */
const props = defineProps<{ evaluated: StripEvaluation; name: string; target: TargetWindow | null }>()
const WIDTH = 112
const HEIGHT = 44
const drawn = computed(() =>
  drawMini(
    sectionModel(props.evaluated.points, 'ceiling', props.evaluated.tightest?.stage ?? null, props.target),
    WIDTH,
    HEIGHT,
  ),
)
</script>

<template>
  <svg
    class="absolute inset-x-1 inset-y-0.5 h-[calc(100%-4px)] w-[calc(100%-8px)]"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    preserveAspectRatio="none"
    role="img"
    :aria-label="`Section of ${name}, small`"
  >
    <path :d="drawn.ceiling" fill="var(--ceiling-soft)" />
    <path :d="drawn.floor" fill="var(--floor-soft)" />
    <path :d="drawn.surge" fill="var(--lip)" />
    <path :d="drawn.body" fill="var(--body)" />
    <path :d="drawn.peak" fill="none" stroke="var(--ink)" vector-effect="non-scaling-stroke" />
    <path :d="drawn.edge" fill="none" stroke="var(--ceiling)" vector-effect="non-scaling-stroke" />
    <path
      v-if="drawn.window"
      :d="drawn.window"
      fill="none"
      stroke="var(--ink)"
      stroke-width="2"
      vector-effect="non-scaling-stroke"
    />
  </svg>
</template>
