<script setup lang="ts">
import { lateComponent } from '~/shared/ui/late-component'
import { computed } from 'vue'
import { gainMap } from '#core/chain/gain-map'
import type { AnalogueInput } from '#core/gear'
import { formatDecimal, formatSigned } from '#core/units'
import { gainMapChart } from './gain-map-chart'

const ChartCanvas = lateComponent(() => import('~/shared/charts/ChartCanvas.vue'))

/** What a preamp can hold: the loudest level and the noise at its input over the gain, with where it is set. */
const props = defineProps<{ input: AnalogueInput; name: string; set?: number | undefined }>()

const map = computed(() => gainMap(props.input))
const chart = computed(() => gainMapChart(map.value, props.set ?? null))
/** The figures at gains that a person would ask for. */
const rows = computed(() => {
  const [first, last] = [map.value.points[0], map.value.points.at(-1)]
  const middle = map.value.points.find(({ gain }) => gain >= (props.set ?? Infinity))
  return [first, middle, last].filter((each, i, all) => each !== undefined && all.indexOf(each) === i)
})
const words = computed(() => {
  const { crossover } = map.value
  if (crossover === null) return null
  const set =
    props.set === undefined
      ? ''
      : props.set < crossover
        ? ` It is set ${formatDecimal(crossover - props.set, 1)} dB below: more gain is less noise.`
        : ` It is set ${formatDecimal(props.set - crossover, 1)} dB above: more gain costs headroom and gains nothing.`
  return `Noise crossover at ${formatDecimal(crossover, 1)} dB of gain: below it the converter’s noise is greater, above it the preamp’s.${set}`
})
</script>

<template>
  <figure data-gain-map>
    <figcaption class="font-semibold">What it can hold: {{ name }}</figcaption>
    <div class="h-44">
      <ChartCanvas
        :config="chart"
        :label="`Maximum input level and input-referred noise of ${name} over its gain; the table below has the figures.`"
      />
    </div>
    <p class="text-xs text-muted">
      <span class="text-ceiling">Upper edge: level that reads 0 dBFS.</span> Lower edge: noise at the input, A-weighted.
      <template v-if="set !== undefined">Vertical line: the gain as set. </template
      ><template v-if="map.crossover !== null">Dashed: the noise crossover.</template>
    </p>
    <p v-if="words" class="mt-1">{{ words }}</p>
    <div class="overflow-x-auto" tabindex="0" :aria-label="`Gain map of ${name}, figures`">
      <table class="mt-1 w-full text-right">
        <thead>
          <tr class="border-b border-ink">
            <th scope="col" class="text-left font-semibold">Gain</th>
            <th scope="col" class="pl-3 font-semibold">0 dBFS at, dBu</th>
            <th scope="col" class="pl-3 font-semibold">Noise, dBu(A)</th>
            <th scope="col" class="pl-3 font-semibold">Between, dB</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row?.gain" class="border-b border-line">
            <th scope="row" class="figure text-left font-normal">{{ formatDecimal(row?.gain ?? null, 1) }} dB</th>
            <td class="figure pl-3">{{ row ? formatSigned(row.maximumInput, 1) : '–' }}</td>
            <td class="figure pl-3">{{ formatDecimal(row?.noise ?? null, 1) }}</td>
            <td class="figure pl-3">{{ formatDecimal(row?.range ?? null, 1) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </figure>
</template>
