<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import type { Overview } from '#core/measure/levels/overview'
import type { StretchSpectrum } from '#core/measure/stretch-spectrum'
import type { NumberField } from '#core/model'
import type { Take } from '#core/simulated/record'
import { formatDecimal } from '#core/units'
import { LEVEL_AXIS, levelChart } from './level-chart'
import { spectrumChart } from './spectrum-chart'
import ChartCanvas from '~/shared/charts/ChartCanvas.vue'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { useMeasuring } from '~/composables/use-measuring'
import MeasuringLine from '~/shared/recordings/MeasuringLine.vue'

/** The level over time; a stretch of it is chosen by dragging or typing, and its spectrum stands below. */
const props = defineProps<{ source: Blob | Take; name: string; overview: Overview; seconds: number; channel: number }>()
const { progress, trouble, name: measured, measure, cancel } = useMeasuring()
const stretch = ref({ from: 0, to: Math.min(props.seconds, 30) })
const spectrum = shallowRef<StretchSpectrum | null>(null)
const canvas = ref<HTMLElement | null>(null)
const drawing = computed(() => levelChart(props.overview, props.seconds, stretch.value))
const bands = computed(() => (spectrum.value ? spectrumChart(spectrum.value) : null))
const time: NumberField = {
  label: 'Time',
  unit: 's',
  min: 0,
  max: Math.ceil(props.seconds * 100) / 100,
  help: 'From the beginning of the recording.',
}

async function look() {
  const { from, to } = stretch.value
  const found = await measure(props.name, {
    question: { kind: 'spectrum', channel: props.channel, fromSeconds: from, seconds: to - from },
    recording: props.source,
  })
  if (found) spectrum.value = found.found
}
function set(part: { from?: number; to?: number }) {
  const next = { ...stretch.value, ...part }
  if (next.to - next.from < 0.1)
    return 'A passage is at least a tenth of a second long, and its end is after its start.'
  stretch.value = next
  void look()
  return null
}

let began: number | null = null
function timeAt(event: PointerEvent): number {
  const box = (canvas.value as HTMLElement).getBoundingClientRect()
  const part = (event.clientX - box.left - LEVEL_AXIS) / Math.max(1, box.width - LEVEL_AXIS)
  return Math.min(1, Math.max(0, part)) * props.seconds
}
function press(event: PointerEvent) {
  began = timeAt(event)
  canvas.value?.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (began === null) return
  const now = timeAt(event)
  if (Math.abs(now - began) >= 0.1) stretch.value = { from: Math.min(began, now), to: Math.max(began, now) }
}
function release() {
  if (began === null) return
  began = null
  void look()
}
onMounted(look)
</script>

<template>
  <div>
    <div
      ref="canvas"
      class="h-32 cursor-crosshair touch-none"
      data-overview
      @pointerdown="press"
      @pointermove="drag"
      @pointerup="release"
    >
      <ChartCanvas
        :config="drawing"
        :label="`Peak and RMS of channel ${channel} over time; the figures are in the table beside`"
      />
    </div>
    <p class="mt-1 flex flex-wrap items-baseline gap-x-3">
      Spectrum from
      <NumberInput :value="stretch.from" :field="time" name="Stretch from" :commit="(from) => set({ from })" /> to
      <NumberInput :value="stretch.to" :field="time" name="Stretch to" :commit="(to) => set({ to })" />
      <span class="text-muted">or drag over the drawing. Line RMS, band peak.</span>
    </p>
    <MeasuringLine :name="measured" :progress="progress" :trouble="trouble" @cancel="cancel" />
    <template v-if="spectrum && bands">
      <div class="mt-1 h-44">
        <ChartCanvas :config="bands" label="Spectrum of the stretch; the third octaves are in the table below" />
      </div>
      <p class="text-muted">
        Steps: third octaves; line: narrow bands of an eighth of that. 20 Hz to 20 kHz
        <span class="figure text-ink">{{ formatDecimal(spectrum.level, 1) }}</span> dBFS,
        <span class="figure text-ink">{{ formatDecimal(spectrum.levelA, 1) }}</span> dBFS(A).
      </p>
      <details>
        <summary class="cursor-pointer">Third octaves as a table</summary>
        <div class="overflow-x-auto" tabindex="0" aria-label="Third octaves">
          <table class="text-right text-xs" data-thirds>
            <tbody>
              <tr>
                <th scope="row" class="pr-2 text-left font-normal text-muted">Hz</th>
                <td v-for="band in spectrum.thirds" :key="band.frequency" class="figure px-1">
                  {{ formatDecimal(band.frequency, band.frequency < 100 ? 1 : 0) }}
                </td>
              </tr>
              <tr>
                <th scope="row" class="pr-2 text-left font-normal text-muted">dBFS</th>
                <td v-for="band in spectrum.thirds" :key="band.frequency" class="figure px-1">
                  {{ formatDecimal(band.level, 1) }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </details>
    </template>
  </div>
</template>
