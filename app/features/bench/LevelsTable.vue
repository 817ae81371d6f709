<script setup lang="ts">
import { computed } from 'vue'
import type { LevelsReport } from '#core/measure/levels/measure-levels'
import { clipsTable, levelRows, levelsTable } from '#core/measure/levels/levels-table'
import { formatDecimal } from '#core/units'
import { writeCsv } from '~/composables/csv'
import { saveFile } from '~/composables/file-access'
import { asFileName } from '~/composables/file-name'

/** The figures of every channel; a channel’s head chooses it for what stands beside. */
const props = defineProps<{ report: LevelsReport; name: string }>()
const chosen = defineModel<number>({ required: true })
const saveAs = (part: string, table: (string | number)[][]) =>
  saveFile(
    writeCsv(table),
    'text/csv',
    `${asFileName(props.name.replace(/\.wave?$/i, ''))}-${part}.csv`,
    'remetra-bench',
  )
const isClipped = computed(() => props.report.channels.some(({ clippedRunCount }) => clippedRunCount > 0))
const more = computed(() => {
  const { clippedRuns = [], clippedRunCount = 0 } = props.report.channels[chosen.value] ?? {}
  return clippedRunCount - clippedRuns.length
})
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
        <tr v-for="row in levelRows" :key="row.key" class="border-b border-line">
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
    <p class="mt-1 text-xs text-muted">
      dBFS after AES17: a full-scale sine reads 0, as peak and as RMS. A meter that gives it −3.01 RMS reads 3.01 dB
      lower.
    </p>
    <p class="mt-1 flex flex-wrap gap-3">
      <button type="button" class="action" data-save="levels" @click="saveAs('levels', levelsTable(report))">
        Levels as CSV
      </button>
      <button
        v-if="isClipped"
        type="button"
        class="action"
        data-save="clips"
        @click="saveAs('clips', clipsTable(report))"
      >
        Every clip with its time, as CSV
      </button>
    </p>
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
        }}<template v-if="more > 0"> and {{ more }} more, whose times were not kept</template>
      </p>
    </details>
  </div>
</template>
