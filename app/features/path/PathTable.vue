<script setup lang="ts">
import type { Point } from '#core/chain/cascade'
import type { ResolvedStage } from '#core/gear/stage'
import { giveOrTake } from '#core/evaluation/how-sure-words'
import { formatDecimal } from '#core/units'
import FigureButton from '~/shared/explaining/FigureButton.vue'
import { useViewStore } from '~/stores/view'

/** The figures behind the section, for reading, copying and screen readers. */
defineProps<{ points: readonly Point[]; stages: readonly ResolvedStage[] }>()

const view = useViewStore()
/** With its ± a figure carries no more digits than that. */
const digits = (stage: string, key: (typeof columns)[number]['key']) => (giveOf(stage, key) === '' ? 2 : 1)
/** How far a figure may be off, where it is known and wanted. */
function giveOf(stage: string, key: (typeof columns)[number]['key']): string {
  const known = view.showsSpread ? view.sure?.points.find((each) => each.stage === stage) : undefined
  const figure = key === 'ceiling' ? null : known?.[key]
  return figure ? giveOrTake(figure.u) : ''
}

const units = { dBSPL: 'dB SPL', dBu: 'dBu', dBFS: 'dBFS' } as const
const columns = [
  { key: 'average', title: 'Average' },
  { key: 'peak', title: 'Peak' },
  { key: 'surgePeak', title: 'Peak with surge' },
  { key: 'ceiling', title: 'Ceiling' },
  { key: 'headroom', title: 'Headroom, dB' },
  { key: 'noise', title: 'Noise (A)' },
  { key: 'snr', title: 'SNR, dB' },
] as const
</script>

<template>
  <table
    class="w-full border-collapse text-right text-[14px]"
    :style="{ height: `min(100%, ${3.4 * (points.length + 1)}rem)` }"
  >
    <caption class="sr-only">
      Levels at the output of every stage
    </caption>
    <thead>
      <tr class="border-b border-ink">
        <th scope="col" class="py-1 text-left font-semibold">At the output of</th>
        <th scope="col" class="text-left font-semibold">Unit</th>
        <th v-for="column in columns" :key="column.key" scope="col" class="pl-3 font-semibold">{{ column.title }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(point, i) in points" :key="point.stage" class="border-b border-line">
        <th scope="row" class="py-1 text-left font-normal">
          {{ stages[i]?.gear.name }}<strong v-if="point.clipped" class="text-ceiling"> – clips</strong>
        </th>
        <td class="text-left text-muted">{{ units[point.unit] }}</td>
        <td v-for="column in columns" :key="column.key" class="figure pl-3">
          <FigureButton
            v-if="point[column.key] !== null"
            :figure="column.key"
            :stage="point.stage"
            :name="`${column.title} at ${stages[i]?.gear.name}`"
            :data-point="`${point.stage}.${column.key}`"
            >{{ formatDecimal(point[column.key], digits(point.stage, column.key)) }}</FigureButton><span
            v-else
            :data-point="`${point.stage}.${column.key}`"
            >{{ formatDecimal(null, 2) }}</span
          >
          <span v-if="giveOf(point.stage, column.key)" class="block text-xs text-muted">{{
            giveOf(point.stage, column.key)
          }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>
