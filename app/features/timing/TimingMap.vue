<script setup lang="ts">
import { Check, CircleHelp, X } from '@lucide/vue'
import { computed } from 'vue'
import { performerLimit } from '#core/latency/performer'
import { routeFigure, routeTime } from '#core/latency/route-words'
import { loadOfCell, loadWords } from '#core/latency/cpu-load'
import type { TimingCell } from '#core/timing/time-session'
import { formatShort } from '#core/units'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useTimingStore } from '~/stores/timing'
import { useViewStore } from '~/stores/view'

/** Buffer against rate: the round trip of each, whether the machine sustains it, and the performer’s limit through it. */
const store = useSessionStore()
const view = useViewStore()
const timing = useTimingStore()
const edit = useSystemEdit()

const limit = computed(() => performerLimit(view.strip?.performer))
const rows = computed(() =>
  timing.axes.rates.map((rate) => ({
    rate,
    cells: timing.axes.buffers.map(
      (frames) =>
        timing.timing?.matrix.find((cell) => cell.sampleRate === rate && cell.bufferFrames === frames) as TimingCell,
    ),
  })),
)
/** The limit runs between the last cell under it and the first over it. */
const edge = (cells: readonly TimingCell[], i: number) => {
  const [here, next] = [cells[i], cells[i + 1]]
  return here !== undefined && next !== undefined && here.softwareMs <= limit.value && next.softwareMs > limit.value
}
const isSet = (cell: TimingCell) =>
  cell.sampleRate === store.session?.system.sampleRate && cell.bufferFrames === store.session.system.bufferFrames
const isBest = (cell: TimingCell) =>
  view.recommendation?.route === 'software' &&
  cell.sampleRate === view.recommendation.sampleRate &&
  cell.bufferFrames === view.recommendation.bufferFrames
const marks = {
  true: { icon: Check, word: 'sustained' },
  false: { icon: X, word: 'drops out' },
  undefined: { icon: CircleHelp, word: 'not known' },
} as const
const mark = (cell: TimingCell) => marks[String(cell.sustainable) as keyof typeof marks]
const timeOf = ({ softwareMs, atLeast }: TimingCell) => ({ milliseconds: softwareMs, atLeast })
const sourceOf = ({ source, atLeast }: TimingCell) => (atLeast ? 'buffers alone' : source)
const words = (cell: TimingCell) =>
  [
    `${formatShort(cell.sampleRate / 1000)} kHz, ${cell.bufferFrames} frames: ${routeTime(timeOf(cell))}`,
    sourceOf(cell),
    mark(cell).word,
    ...(cell.softwareMs > limit.value ? ['over the limit'] : []),
    ...(isBest(cell) ? ['recommended'] : []),
  ].join(', ')
/** What was typed is shown as it was typed. */
function loadText(cell: TimingCell) {
  const load = loadOfCell(cell)
  if (!load) return ''
  return cell.loadSource === 'measured' ? `${formatShort(load.percent, 1)} %` : loadWords(load)
}
const choose = (cell: TimingCell) =>
  edit.system('Rate and buffer', { sampleRate: cell.sampleRate, bufferFrames: cell.bufferFrames })
/** Arrows go from cell to cell. */
function keys(event: KeyboardEvent, row: number, column: number) {
  const steps: Record<string, [number, number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  }
  const step = steps[event.key]
  const cell = step && rows.value[row + step[0]]?.cells[column + step[1]]
  if (!cell) return
  event.preventDefault()
  document.querySelector<HTMLElement>(`[data-cell="${cell.sampleRate}-${cell.bufferFrames}"]`)?.focus()
}
</script>

<template>
  <div>
    <p id="timing-map-words" class="pb-1 text-muted">
      Round trip in ms by rate and buffer. The heavy line is the limit of {{ formatShort(limit) }} ms for
      {{ view.strip?.name }}; click a cell to set it.
    </p>
    <div class="overflow-x-auto" tabindex="0" aria-label="Round trips by rate and buffer">
      <table class="w-full border-separate border-spacing-0 text-right" aria-describedby="timing-map-words">
        <thead>
          <tr>
            <th scope="col" class="px-2 text-left font-semibold">Frames</th>
            <th v-for="frames in timing.axes.buffers" :key="frames" scope="col" class="figure px-2 pb-1 font-semibold">
              {{ frames }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="({ rate, cells }, row) in rows" :key="rate">
            <th scope="row" class="px-2 text-left font-semibold whitespace-nowrap">
              {{ formatShort(rate / 1000) }} kHz
            </th>
            <td
              v-for="(cell, i) in cells"
              :key="cell.bufferFrames"
              class="border-b border-line p-0"
              :class="edge(cells, i) ? 'border-r-[3px] border-r-ceiling' : 'border-r border-r-line'"
            >
              <button
                type="button"
                class="block w-full px-2 py-1.5 text-right hover:bg-change-soft"
                :aria-label="words(cell)"
                :aria-pressed="isSet(cell)"
                :data-cell="`${cell.sampleRate}-${cell.bufferFrames}`"
                :class="[
                  isSet(cell) ? 'bg-change text-on-change' : isBest(cell) ? 'bg-change-soft' : 'bg-sheet',
                  { 'opacity-100 text-muted': !isSet(cell) && cell.softwareMs > limit },
                ]"
                @click="choose(cell)"
                @keydown="keys($event, row, i)"
              >
                <span
                  class="figure block text-[14px] whitespace-nowrap"
                  :class="{ 'font-semibold': cell.source === 'measured' }"
                  >{{ routeFigure(timeOf(cell)) }}</span
                >
                <span class="flex items-center justify-end gap-1 text-[11px]"
                  ><span>{{ sourceOf(cell) }}</span
                  ><component :is="mark(cell).icon" class="size-3" aria-hidden="true"
                /></span>
                <span
                  v-if="cell.loadPercent !== undefined"
                  class="figure block text-[11px]"
                  :title="cell.loadSource === 'measured' ? 'read off the meter' : 'from the meter at other sizes'"
                  >{{ loadText(cell) }}</span
                >
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="mt-1 flex flex-wrap gap-x-4 text-xs text-muted">
        <span v-for="each in marks" :key="each.word" class="inline-flex items-center gap-1"
          ><component :is="each.icon" class="size-3" aria-hidden="true" />{{ each.word }}</span
        ><span>shaded: recommended</span><span>% is the load</span>
      </p>
    </div>
  </div>
</template>
