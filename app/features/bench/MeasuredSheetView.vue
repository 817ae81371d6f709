<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import type { Bench } from '#core/bench/procedure'
import { keepSheet, keptFigures } from '#core/cable-run/keep-sheet'
import { markText } from '#core/cable-run/figures/gain'
import { sheetTable, sheetsBeside } from '#core/cable-run/sheet-table'
import type { Fault, MeasuredSheet } from '#core/files'
import { readMeasuredSheet, sheetGroups, writeGearFile, writeMeasuredSheet } from '#core/files'
import { asMarkdown } from '#core/log/sheets'
import { formatDecimal, formatSigned } from '#core/units'
import ChartCanvas from '~/shared/charts/ChartCanvas.vue'
import { writeCsv } from '~/composables/csv'
import { chooseFile, saveFile } from '~/composables/file-access'
import { asFileName } from '~/composables/file-name'
import { usePrinting } from '~/composables/use-printing'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useBenchStore } from '~/stores/bench'
import type { OpenSheet } from '~/stores/measured-sheets'
import { useMeasuredSheets } from '~/stores/measured-sheets'
import { responseChart } from './response-chart'

/** The measured data sheet: every figure with ±, method and what it is beside the maker’s; kept, exported, beside another one. */
const props = defineProps<{ bench: Bench }>()
const store = useBenchStore()
const sheets = useMeasuredSheets()
const edit = useStageEdit()
const printNow = usePrinting()
const kept = ref<string | null>(null)
const faults = ref<Fault[]>([])

const open = computed(() => sheets.open as OpenSheet)
const sheet = computed(() => open.value.sheet)
const groups = computed(() =>
  sheetGroups
    .map((name) => ({ name, figures: sheet.value.figures.filter(({ group }) => group === name) }))
    .filter(({ figures }) => figures.length > 0),
)
const isPractice = computed(() => sheet.value.practice)
const keepable = computed(() => keptFigures(sheet.value, open.value.isThroughBrowser))
/** The sheet belongs to the unit it was measured on, whatever stands on the bench now. */
const isOfBench = computed(
  () => sheet.value.unit === props.bench.unit.name && sheet.value.input === props.bench.input.id,
)
const others = computed(() => sheets.all.flatMap(({ sheet: each }) => (each === sheet.value ? [] : [each])))
const beside = computed(() => sheets.beside)
const pairs = computed(() => (beside.value ? sheetsBeside(sheet.value, beside.value) : []))
const chart = computed(() => responseChart(sheet.value, beside.value))

onMounted(() => {
  sheets.isShown = true
})
onBeforeUnmount(() => {
  sheets.isShown = false
})

const apply = (session: Bench['session']) =>
  keepSheet(session, props.bench, sheet.value, open.value.buffers, open.value.isThroughBrowser)
function keep() {
  kept.value =
    edit.session('Measured sheet kept', apply) ??
    `Kept beside the data sheet: ${keepable.value.map(({ name }) => name).join('; ')}${sheet.value.marks.some(({ position }) => position !== undefined) ? '; the knob’s marks' : ''}.`
}

const name = (extension: string) =>
  `${asFileName(sheet.value.unit)}-${sheet.value.input}-${sheet.value.on}.${extension}`
const title = computed(() => `${sheet.value.unit}, input ${sheet.value.input}, measured ${sheet.value.on}`)
const FORMATS = {
  md: { type: 'text/markdown', of: () => asMarkdown(title.value, sheetTable(sheet.value)) },
  csv: { type: 'text/csv', of: () => writeCsv(sheetTable(sheet.value)) },
  json: { type: 'application/json', of: () => writeMeasuredSheet(sheet.value) },
} as const
const save = (extension: keyof typeof FORMATS) =>
  saveFile(FORMATS[extension].of(), FORMATS[extension].type, name(extension), 'remetra-sheet')
async function saveGear() {
  const unit = apply(props.bench.session).gear.find(({ id }) => id === props.bench.unit.id)
  if (unit) await saveFile(writeGearFile([unit]), 'application/json', name('gear.json'), 'remetra-gear')
}

function showBeside(other: MeasuredSheet | null) {
  sheets.beside = other
}
async function openBeside() {
  const file = await chooseFile({ extensions: ['.json'], description: 'Measured sheet', id: 'remetra-sheet' })
  if (!file) return
  const reading = readMeasuredSheet(await file.text())
  faults.value = reading.ok ? [] : reading.faults
  if (reading.ok) showBeside(reading.sheet)
}
</script>

<template>
  <section class="plate px-3 py-2" aria-labelledby="sheet-title" data-measured-sheet>
    <header class="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b border-ink pb-1">
      <h3 id="sheet-title" class="text-[15px]">{{ sheet.unit }}, input {{ sheet.input }}</h3>
      <span class="text-muted"
        >measured {{ sheet.on }} at {{ formatDecimal(sheet.sampleRate / 1000, 1) }} kHz{{
          isPractice ? ', on the simulated interface' : ''
        }}</span
      >
      <span class="ml-auto flex flex-wrap gap-2">
        <button type="button" class="push" @click="printNow">Print</button>
        <button type="button" class="push" data-save="md" @click="save('md')">Markdown</button>
        <button type="button" class="push" data-save="csv" @click="save('csv')">CSV</button>
        <button type="button" class="push" data-save="json" @click="save('json')">JSON</button>
        <button v-if="isOfBench" type="button" class="push" data-save="gear" @click="saveGear">Gear file</button>
      </span>
    </header>
    <p v-if="isOfBench && keepable.length > 0" class="mt-1.5 flex flex-wrap items-baseline gap-3">
      <button type="button" class="push-main" data-keep @click="keep">Keep as measured</button>
      <span v-if="kept" role="status" class="text-muted">{{ kept }}</span>
      <span v-else class="text-muted">{{ keepable.length }} figures go beside the data sheet; every plan follows.</span>
    </p>
    <p v-if="isPractice" class="mt-1 text-muted">
      Made on the simulated interface, not on your unit; its true values are shown beside. Keep it for practice only.
    </p>
    <ul class="mt-1">
      <li v-for="remark in sheet.remarks" :key="remark">{{ remark }}</li>
    </ul>
    <div class="overflow-x-auto">
      <table class="mt-1 w-full text-right">
        <thead>
          <tr class="border-b border-rule text-muted">
            <th scope="col" class="text-left font-normal">Figure</th>
            <th scope="col" class="pl-3 font-normal">Measured</th>
            <th scope="col" class="pl-3 font-normal">±</th>
            <th scope="col" class="pl-3 font-normal">Data sheet</th>
            <th v-if="isPractice" scope="col" class="pl-3 font-normal">True</th>
          </tr>
        </thead>
        <tbody v-for="group in groups" :key="group.name">
          <tr>
            <th scope="rowgroup" colspan="5" class="pt-2 text-left">{{ group.name }}</th>
          </tr>
          <template v-for="figure in group.figures" :key="figure.id">
            <tr :data-figure="figure.id">
              <th scope="row" class="text-left font-normal">{{ figure.name }}</th>
              <td class="figure pl-3 font-semibold whitespace-nowrap" data-measured>
                {{ formatDecimal(figure.value, figure.digits) }} {{ figure.unit }}
              </td>
              <td class="figure pl-3">{{ formatDecimal(2 * figure.u, figure.digits) }}</td>
              <td class="figure pl-3">{{ formatDecimal(figure.printed, figure.digits) }}</td>
              <td v-if="isPractice" class="figure pl-3" data-true>{{ formatDecimal(figure.truth, figure.digits) }}</td>
            </tr>
            <tr class="border-b border-line">
              <td colspan="5" class="pb-0.5 text-left text-xs text-muted">
                <strong v-if="figure.doubt" class="text-ceiling" data-doubt>{{ figure.doubt }} </strong>{{
                  figure.judgement
                }}
                <span class="whitespace-nowrap">Method:</span> {{ figure.method }}.
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <template v-if="sheet.response.length > 0">
      <h4 class="mt-3">Response, output and input together</h4>
      <div class="h-44">
        <ChartCanvas :config="chart" label="Response against frequency, dB against 1 kHz" />
      </div>
    </template>
    <template v-if="sheet.marks.length > 0">
      <h4 class="mt-3">Gain marks</h4>
      <ul class="flex flex-wrap gap-x-6">
        <li v-for="mark in sheet.marks" :key="markText(mark)" class="figure">
          {{ markText(mark) }}: {{ formatDecimal(mark.gain, 2) }} dB
        </li>
      </ul>
    </template>
    <section class="mt-3 border-t border-line pt-1.5" aria-label="Beside another sheet" data-beside>
      <p class="flex flex-wrap items-baseline gap-3">
        <strong>Beside another unit’s sheet</strong>
        <button
          v-for="(other, i) in others"
          :key="i"
          type="button"
          class="push"
          :aria-pressed="beside === other"
          @click="showBeside(beside === other ? null : other)"
        >
          {{ other.unit }}, {{ other.input }}
        </button>
        <button type="button" class="push" data-open-beside @click="openBeside">Open a sheet…</button>
        <button type="button" class="action" @click="store.page = 'compare'">Compare on your own chain</button>
      </p>
      <ul v-if="faults.length > 0" role="alert" class="text-ceiling">
        <li v-for="fault in faults.slice(0, 3)" :key="fault.path + fault.message">
          {{ fault.path }}{{ fault.path ? ': ' : '' }}{{ fault.message }}
        </li>
      </ul>
      <div v-if="beside" class="overflow-x-auto">
        <table class="mt-1 w-full text-right">
          <thead>
            <tr class="border-b border-rule text-muted">
              <th scope="col" class="text-left font-normal">Figure</th>
              <th scope="col" class="pl-3 font-normal">{{ sheet.unit }}, {{ sheet.input }}</th>
              <th scope="col" class="pl-3 font-normal">{{ beside.unit }}, {{ beside.input }}</th>
              <th scope="col" class="pl-3 font-normal">Difference</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="pair in pairs"
              :key="(pair.first ?? pair.second)?.id"
              class="border-b border-line"
              :class="{ 'font-semibold': pair.differs }"
            >
              <th scope="row" class="text-left font-normal">
                {{ (pair.first ?? pair.second)?.name }}, {{ (pair.first ?? pair.second)?.unit }}
              </th>
              <td class="figure pl-3">{{ formatDecimal(pair.first?.value ?? null, pair.first?.digits ?? 1) }}</td>
              <td class="figure pl-3">{{ formatDecimal(pair.second?.value ?? null, pair.second?.digits ?? 1) }}</td>
              <td class="figure pl-3 whitespace-nowrap">
                {{ pair.by === null ? '–' : formatSigned(pair.by, pair.first?.digits ?? 1)
                }}{{ pair.by === null ? '' : pair.differs ? ' differs' : ' may be the same' }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  </section>
</template>
