<script setup lang="ts">
import { format } from 'date-fns'
import { asJson, asMarkdown } from '#core/log/sheets'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import { writeCsv } from '~/composables/csv'
import { asFileName } from '~/composables/file-name'
import { saveFile } from '~/composables/file-access'
import { usePrinting } from '~/composables/use-printing'
import type { LogSheet } from './log-view'
import { logSheets, sheetTitles, useLogViewStore } from './log-view'
import MarkSelect from './MarkSelect.vue'
import SheetBody from './SheetBody.vue'

/** Sheets to take along: on screen, on paper, as text, table and data. */
const view = useLogViewStore()
const sheetChoices = logSheets.map((value) => ({ value, text: sheetTitles[value] }))
const choose = (sheet: LogSheet) => {
  view.sheet = sheet
}
const FORMATS = {
  md: { type: 'text/markdown', of: () => asMarkdown(view.title, view.table) },
  csv: { type: 'text/csv', of: () => writeCsv(view.table) },
  json: { type: 'application/json', of: () => asJson(view.table) },
} as const
const save = (extension: keyof typeof FORMATS) =>
  saveFile(FORMATS[extension].of(), FORMATS[extension].type, nameOf(extension), 'remetra-log')
/** Of which session, which sheet, from which day. */
const nameOf = (extension: string) =>
  `${asFileName(view.sheetSession?.name ?? '')}-${view.sheet}-${format(Date.now(), 'yyyy-MM-dd')}.${extension}`
/** The sheet for paper stands ready beside this one. */
const printNow = usePrinting()
</script>

<template>
  <section aria-label="Sheets" data-sheets>
    <p class="flex flex-wrap items-center gap-x-3 gap-y-1">
      <ChoiceBar :options="sheetChoices" :chosen="view.sheet" label="Which sheet" @choose="choose" />
      <MarkSelect
        v-if="view.sheet !== 'takes'"
        now
        :value="view.sheetOf"
        label="Of which state"
        @choose="
          (id) => {
            view.sheetOf = id
          }
        "
      />
      <span class="ml-auto flex flex-wrap gap-2">
        <button type="button" class="push" @click="printNow">Print</button>
        <button type="button" class="push" data-save="md" @click="save('md')">Markdown</button>
        <button type="button" class="push" data-save="csv" @click="save('csv')">CSV</button>
        <button type="button" class="push" data-save="json" @click="save('json')">JSON</button>
      </span>
    </p>
    <SheetBody class="mt-3" />
  </section>
</template>
