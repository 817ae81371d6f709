<script setup lang="ts">
import type { LevelsReport } from '#core/measure/levels/measure-levels'
import { formatDecimal } from '#core/units'

/** The figures of every channel; a channel’s head chooses it for what stands beside. */
defineProps<{ report: LevelsReport }>()
const chosen = defineModel<number>({ required: true })
const rows = [
  { key: 'peak', title: 'Peak, dBFS' },
  { key: 'truePeak', title: 'True peak, dBTP' },
  { key: 'rms', title: 'RMS, dBFS' },
  { key: 'rmsA', title: 'A-weighted, dBFS' },
  { key: 'crest', title: 'Crest, dB' },
  { key: 'dc', title: 'DC, dBFS' },
  { key: 'floor', title: 'Quietest second' },
  { key: 'integrated', title: 'Loudness, LUFS' },
  { key: 'momentaryMax', title: 'Momentary max' },
  { key: 'shortTermMax', title: 'Short-term max' },
  { key: 'range', title: 'Range, LU' },
] as const
</script>

<template>
  <div class="overflow-x-auto" tabindex="0" aria-label="Levels by channel">
    <table class="w-full text-right">
      <thead>
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 text-left font-semibold">Channel</th>
          <th v-for="(_, i) in report.channels" :key="i" scope="col" class="pl-3 font-semibold">
            <button
              type="button"
              class="px-1"
              :class="chosen === i ? 'bg-change text-on-change' : 'action'"
              :aria-label="`Channel ${i + 1}`"
              :aria-pressed="chosen === i"
              @click="chosen = i"
            >
              {{ i + 1 }}
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.key" class="border-b border-line">
          <th scope="row" class="py-0.5 text-left font-normal">{{ row.title }}</th>
          <td v-for="(each, i) in report.channels" :key="i" class="figure pl-3" :data-level="`${i + 1}.${row.key}`">
            {{ formatDecimal(each[row.key], 2) }}
          </td>
        </tr>
        <tr class="border-b border-line">
          <th scope="row" class="py-0.5 text-left font-normal">Peak at, s</th>
          <td v-for="(each, i) in report.channels" :key="i" class="figure pl-3">
            {{ formatDecimal(each.peakSeconds, 2) }}
          </td>
        </tr>
        <tr>
          <th scope="row" class="py-0.5 text-left font-normal">Clipped runs</th>
          <td
            v-for="(each, i) in report.channels"
            :key="i"
            class="figure pl-3"
            :class="{ 'font-semibold text-ceiling': each.clippedRunCount > 0 }"
          >
            {{ each.clippedRunCount }}
          </td>
        </tr>
      </tbody>
    </table>
    <details v-if="report.channels[chosen]?.clippedRuns.length" class="mt-1">
      <summary class="cursor-pointer text-ceiling">
        Channel {{ chosen + 1 }} clips, first at
        {{ formatDecimal(report.channels[chosen]?.clippedRuns[0]?.seconds, 2) }} s
      </summary>
      <p class="figure max-h-32 overflow-y-auto" tabindex="0" aria-label="Times of clipping">
        {{
          report.channels[chosen]?.clippedRuns
            .map((run) => `${formatDecimal(run.seconds, 3)} s (${run.frames})`)
            .join(', ')
        }}
      </p>
    </details>
  </div>
</template>
