<script setup lang="ts">
import { useMediaQuery, useResizeObserver } from '@vueuse/core'
import type { ChartConfiguration } from 'chart.js'
import { Chart, Filler, LineController, LineElement, LinearScale, PointElement } from 'chart.js'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useColorMode } from '#imports'
import type { GainControl } from '#core/chain/gain-control'
import { stripControls } from '#core/chain/gain-control'
import type { ResolvedStage } from '#core/chain/resolve'
import type { Palette } from '~/charts/palette'
import { readPalette } from '~/charts/palette'
import { RULER, sectionChart } from '~/charts/section-chart'
import { sectionDrawing } from '~/charts/section-drawing'
import type { SectionModel } from '~/charts/section-model'
import { controlName } from './control-name'
import GainHandle from './GainHandle.vue'

/** The strip as a river in section, with a handle on every gain. */
const props = defineProps<{ model: SectionModel; stages: readonly ResolvedStage[]; summary: string }>()

Chart.register(LineController, LineElement, LinearScale, PointElement, Filler)

const frame = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const palette = shallowRef<Palette | null>(null)
/** The drawn area, px; the handles stand in it. */
const area = ref({ top: 0, height: 1, width: 1 })
const printing = useMediaQuery('print')
const theme = useColorMode()
let chart: Chart | null = null

const scene = () => ({ model: props.model, palette: palette.value as Palette })

function draw() {
  if (!canvas.value || !palette.value) return
  const { type, data, options } = sectionChart(scene())
  if (chart) Object.assign(chart, { data, options }).update('none')
  else chart = new Chart(canvas.value, { type, data, options, plugins: [sectionDrawing(scene)] } as ChartConfiguration)
  place()
}

/** A drag changes levels only: as long as the ruler and the columns stay, the chart keeps its options. */
function redraw(now: SectionModel, before: SectionModel) {
  const same =
    now.top === before.top &&
    now.bottom === before.bottom &&
    now.reading === before.reading &&
    now.columns.length === before.columns.length
  if (!chart || !same) return draw()
  sectionChart(scene()).data.datasets.forEach((dataset, i) => {
    const drawn = chart?.data.datasets[i]
    if (drawn) drawn.data = dataset.data
  })
  chart.update('none')
}

function place() {
  if (chart) area.value = { top: chart.chartArea.top, height: chart.chartArea.height, width: chart.chartArea.width }
}

const pixelsPerDb = computed(() => area.value.height / (props.model.top - props.model.bottom))
const columnWidth = computed(() => area.value.width / Math.max(1, props.model.columns.length))
/** Below this a column has no room for a handle with its unit, px. */
const NARROW = 130
const controls = computed(() => stripControls(props.stages))
const handles = computed(() =>
  controls.value.flatMap((control) => {
    const i = props.stages.findIndex((stage) => stage.id === control.stage)
    const column = props.model.columns[i]
    if (!column) return []
    const level = (of: number) => area.value.top + (props.model.top - of) * pixelsPerDb.value
    const left = RULER + i * columnWidth.value
    const key = `${control.stage} ${control.setting}`
    // A channel's gain is met at its joint, its fader behind: there it hangs under the band.
    return control.setting === 'gain'
      ? [{ control, key, left, top: level(column.peak) }]
      : [{ control, key, left: left + columnWidth.value / 2, top: level(column.average) + 16 }]
  }),
)
const nameOf = (control: GainControl) => controlName(control, controls.value.length, props.stages)

onMounted(async () => {
  if (!frame.value) return
  palette.value = readPalette(frame.value)
  draw()
  // Text on a canvas does not change by itself when its font arrives.
  await Promise.all(
    ['450 12px "JetBrains Mono Variable"', '450 12px "Instrument Sans Variable"'].map((font) =>
      document.fonts.load(font),
    ),
  )
  draw()
})
watch(() => props.model, redraw)
watch(
  [() => theme.value, printing],
  () => {
    if (!frame.value) return
    palette.value = readPalette(frame.value)
    draw()
  },
  { flush: 'post' },
)
useResizeObserver(frame, place)
onBeforeUnmount(() => chart?.destroy())
</script>

<template>
  <div ref="frame" class="relative h-full min-h-0">
    <canvas ref="canvas" role="img" :aria-label="summary" />
    <GainHandle
      v-for="handle in handles"
      :key="handle.key"
      :control="handle.control"
      :name="nameOf(handle.control)"
      :small="columnWidth < NARROW"
      :pixels-per-db="pixelsPerDb"
      :style="{ left: `${handle.left}px`, top: `${handle.top}px` }"
    />
  </div>
</template>
