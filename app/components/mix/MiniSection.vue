<script setup lang="ts">
import { computed } from 'vue'
import type { StripEvaluation } from '#core/evaluation/evaluate-session'
import { drawMini } from '~/charts/mini-section'
import { sectionModel } from '~/charts/section-model'

/** A strip’s section in small; all of a place share one ruler. */
const props = defineProps<{ evaluated: StripEvaluation; name: string }>()
const WIDTH = 112
const HEIGHT = 44
const drawn = computed(() =>
  drawMini(
    sectionModel(props.evaluated.points, 'ceiling', props.evaluated.tightest?.stage ?? null, null),
    WIDTH,
    HEIGHT,
  ),
)
</script>

<template>
  <svg
    :width="WIDTH"
    :height="HEIGHT"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`Section of ${name}, small`"
  >
    <path :d="drawn.ceiling" fill="var(--ceiling-soft)" />
    <path :d="drawn.floor" fill="var(--floor-soft)" />
    <path :d="drawn.surge" fill="var(--lip)" />
    <path :d="drawn.body" fill="var(--body)" />
    <path :d="drawn.edge" fill="none" stroke="var(--ceiling)" />
  </svg>
</template>
