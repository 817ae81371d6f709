<script setup lang="ts">
import { computed } from 'vue'
import { figureText } from '#core/cable-run/sheet-table'
import { markText } from '#core/cable-run/figures/gain'
import { sheetGroups } from '#core/files'
import { formatDecimal } from '#core/units'
import { useMeasuredSheets } from '~/stores/measured-sheets'

/** The measured sheet on paper. */
const sheets = useMeasuredSheets()
const sheet = computed(() => sheets.open?.sheet ?? null)
</script>

<template>
  <article v-if="sheet" class="space-y-2 text-[11px]" data-sheet-print>
    <header class="flex items-baseline justify-between border-b-2 border-ink pb-1">
      <h1 class="text-lg">{{ sheet.unit }}, input {{ sheet.input }}, output {{ sheet.output }}</h1>
      <p>Measured {{ sheet.on }} at {{ formatDecimal(sheet.sampleRate / 1000, 1) }} kHz</p>
    </header>
    <p v-if="sheet.practice"><strong>Made on the simulated interface, for practice.</strong></p>
    <p v-for="remark in sheet.remarks" :key="remark">{{ remark }}</p>
    <table class="w-full">
      <tbody v-for="group in sheetGroups" :key="group">
        <tr
          v-for="figure in sheet.figures.filter((each) => each.group === group)"
          :key="figure.id"
          class="border-b border-line"
        >
          <th scope="row" class="pr-3 text-left font-normal">{{ figure.name }}</th>
          <td class="figure pr-3 whitespace-nowrap">{{ figureText(figure) }}</td>
          <td class="figure pr-3 whitespace-nowrap">
            {{ figure.printed === null ? '' : `data sheet ${formatDecimal(figure.printed, figure.digits)}` }}
          </td>
          <td>{{ figure.doubt ?? figure.judgement }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="sheet.marks.length > 0">
      Gain marks:
      <span v-for="mark in sheet.marks" :key="markText(mark)" class="figure mr-4"
        >{{ markText(mark) }} {{ formatDecimal(mark.gain, 2) }} dB</span
      >
    </p>
    <p v-if="sheet.response.length > 0">
      Response, dB against 1 kHz:
      <span v-for="{ frequency, level } in sheet.response" :key="frequency" class="figure mr-3"
        >{{ frequency }} Hz {{ formatDecimal(level, 2) }}</span
      >
    </p>
  </article>
</template>
