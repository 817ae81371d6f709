<script setup lang="ts">
import type { ChartConfiguration } from 'chart.js'
import {
  Chart,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js'
import { useTimeoutFn } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useColorMode } from '#imports'
import type { Palette } from './palette'
import { readPalette } from './palette'

/** A canvas for a chart: what is drawn, `config` says, from the theme’s palette. */
const props = defineProps<{ config: (palette: Palette) => ChartConfiguration; label: string }>()

Chart.register(
  LineController,
  ScatterController,
  LineElement,
  PointElement,
  LinearScale,
  LogarithmicScale,
  Filler,
  Tooltip,
)
const canvas = ref<HTMLCanvasElement | null>(null)
const theme = useColorMode()
let chart: Chart | null = null

function draw() {
  if (!canvas.value) return
  const { type, data, options } = props.config(readPalette(canvas.value))
  if (chart) Object.assign(chart, { data, options }).update('none')
  else chart = new Chart(canvas.value, { type, data, options } as ChartConfiguration)
}
// In a task of its own: what brings a chart with it has the page to lay out, and both at once would hold it up.
const { start: drawSoon } = useTimeoutFn(draw, 0, { immediate: false })
onMounted(drawSoon)
watch([() => props.config, () => theme.value], () => drawSoon(), { flush: 'post' })
onBeforeUnmount(() => chart?.destroy())
</script>

<template>
  <div class="relative h-full min-h-0"><canvas ref="canvas" role="img" :aria-label="label" /></div>
</template>
