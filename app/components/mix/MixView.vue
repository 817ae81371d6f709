<script setup lang="ts">
import { ArrowDown, ArrowUp, CircleAlert, Info, OctagonX } from '@lucide/vue'
import { computed, ref } from 'vue'
import { NuxtLink } from '#components'
import { gainToPosition, positionInWords } from '#core/chain/knob'
import type { GainControl } from '#core/chain/gain-control'
import type { MixRow } from '#core/evaluation/mix'
import { mixRows } from '#core/evaluation/mix'
import { noiseWords } from '#core/evaluation/verdict'
import { routeFigure } from '#core/latency/route-words'
import { isBus, settingFields } from '#core/session'
import { db, formatDecimal } from '#core/units'
import NumberInput from '~/components/fields/NumberInput.vue'
import SwitchChip from '~/components/fields/SwitchChip.vue'
import { turnedGain } from '~/composables/turned'
import { useGridKeys } from '~/composables/use-grid-keys'
import { usePlanGesture } from '~/composables/use-plan-gesture'
import { useSends } from '~/composables/use-sends'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import MiniSection from './MiniSection.vue'
import SendCell from './SendCell.vue'
import TurnHandle from './TurnHandle.vue'

/** All strips of the session at once, one line each: what an engineer with twelve microphones looks at. */
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()
const plan = usePlanGesture()
const { busses } = useSends()

type Column = 'name' | 'input' | 'gain' | 'pfl' | 'recorded' | 'floor' | 'tightest' | 'roundTrip'
const HEADS: Record<Column, string> = {
  name: 'Strip',
  input: 'Input',
  gain: 'Gain',
  pfl: 'At PFL',
  recorded: 'Recorded',
  floor: 'Floor',
  tightest: 'Tightest',
  roundTrip: 'To the ear',
}
const VALUE: Record<Column, (row: MixRow) => number | string | null> = {
  name: ({ strip }) => strip.name,
  input: ({ input }) => input?.number ?? null,
  gain: ({ control }) => control?.value ?? null,
  pfl: ({ pfl }) => pfl,
  recorded: ({ recorded }) => recorded,
  floor: ({ evaluated }) => evaluated.points.at(-1)?.noise ?? null,
  tightest: ({ tightest }) => tightest?.headroom ?? null,
  roundTrip: ({ roundTrip }) => roundTrip?.milliseconds ?? null,
}
const sorting = ref<{ by: Column; down: boolean } | null>(null)
/** The order of the session, then up, then down. */
function sort(by: Column) {
  const now = sorting.value
  sorting.value = now?.by !== by ? { by, down: false } : now.down ? null : { by, down: true }
}
const ariaSort = (by: Column) =>
  sorting.value?.by !== by ? undefined : sorting.value.down ? ('descending' as const) : ('ascending' as const)

const onlyNeeding = ref(false)
const all = computed(() => (store.session && store.evaluation ? mixRows(store.session, store.evaluation) : []))
const needing = computed(() => all.value.filter(({ needs }) => needs === 'stop' || needs === 'caution'))
const rows = computed(() => {
  const shown = onlyNeeding.value ? [...needing.value] : [...all.value]
  const { value } = sorting
  if (!value) return shown
  return shown.sort((a, b) => {
    const [one, other] = [VALUE[value.by](a), VALUE[value.by](b)]
    // What has no such figure stands last, whichever way is up.
    if (one === null || other === null) return one === other ? 0 : one === null ? 1 : -1
    const order = typeof one === 'string' ? one.localeCompare(String(other)) : one - Number(other)
    return value.down ? -order : order
  })
})

/** A bank's bracket: where it begins, runs on and ends among the lines that stand together. */
function bracket(i: number): string {
  const bank = (row: MixRow | undefined) => (row?.phantom?.bank ? row.phantom.switchId : null)
  const own = bank(rows.value[i])
  if (!own) return ''
  const [above, below] = [bank(rows.value[i - 1]) === own, bank(rows.value[i + 1]) === own]
  return above && below ? 'bank-on' : above ? 'bank-end' : below ? 'bank-begin' : 'bank-alone'
}

const gainField = ({ range, setting }: GainControl) => ({
  ...settingFields[setting],
  min: range.gainMin,
  max: range.gainMax,
})
const knob = ({ knob: table, value }: GainControl) => {
  const position = table && gainToPosition(table, value)
  return position ? positionInWords(position) : null
}
const setGain = (strip: string, control: GainControl) => (to: number | undefined) =>
  to === undefined
    ? null
    : edit.changes('Gain', [{ strip, stage: control.stage, setting: control.setting, to: db(to) }])
const setPad = (strip: string, stage: string) => (to: boolean) =>
  edit.changes('Pad', [{ strip, stage, setting: 'pad', to }])

const MARKS = {
  stop: { icon: OctagonX, word: 'stop', tone: 'text-ceiling' },
  caution: { icon: CircleAlert, word: 'to see to', tone: 'text-ceiling' },
  note: { icon: Info, word: 'a note', tone: 'text-muted' },
} as const
const told = computed(() => {
  const settings = plan.applied.value?.settings
  if (!settings) return null
  return settings.length === 0
    ? 'Everything is as planned.'
    : `${settings.length} ${settings.length === 1 ? 'setting was' : 'settings were'} changed.`
})
const planned = computed(() => store.plan?.settings.length ?? 0)
const notes = computed(() =>
  (store.plan?.strips ?? []).flatMap(({ strip, notes: said }) => {
    const of = store.session?.strips.find(({ id }) => id === strip)
    return of && isBus(of) ? said.map((words) => ({ name: of.name, words })) : []
  }),
)

const table = ref<HTMLElement | null>(null)
const grid = useGridKeys(table)
const columns = Object.keys(HEADS) as Column[]
</script>

<template>
  <div v-if="store.session" class="flex min-h-0 grow flex-col gap-2 px-2 py-2 card:px-5" data-mix>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <h2 class="grow">All strips</h2>
      <SwitchChip
        :on="onlyNeeding"
        :label="`only what needs something (${needing.length})`"
        @change="(on) => (onlyNeeding = on)"
      />
      <button type="button" class="push" data-set-all @click="plan.apply('all')">
        Set all for me<template v-if="planned > 0"> ({{ planned }})</template>
      </button>
    </div>
    <p v-if="told" role="status" class="flex justify-between gap-3 border border-rule bg-sheet px-2 py-1" data-told>
      {{ told }}
      <span
        ><button v-if="plan.applied.value?.settings.length" type="button" class="action" @click="plan.takeBack">
          Undo
        </button>
        <button type="button" class="action" @click="plan.dismiss">Close</button></span
      >
    </p>
    <p v-for="note in notes" :key="note.words" class="border-l-4 border-l-rule pl-2" data-bus-note>
      <strong>{{ note.name }}:</strong> {{ note.words }}
    </p>
    <div class="min-h-0 overflow-auto border-t border-ink" tabindex="0" aria-label="All strips, table">
      <table ref="table" class="w-full border-collapse text-[13px]" @keydown="grid.keys">
        <thead class="sticky top-0 z-10 bg-paper text-xs text-muted">
          <tr>
            <th
              v-for="column in columns.slice(0, 2)"
              :key="column"
              scope="col"
              :aria-sort="ariaSort(column)"
              class="px-1 text-left font-normal"
            >
              <button type="button" class="py-1" @click="sort(column)">
                {{ HEADS[column]
                }}<component
                  :is="sorting.down ? ArrowDown : ArrowUp"
                  v-if="sorting?.by === column"
                  class="inline size-3"
                  aria-hidden="true"
                />
              </button>
            </th>
            <th scope="col" class="px-1 text-left font-normal">Section, clip to −110</th>
            <th scope="col" class="px-1 text-right font-normal">
              <button type="button" class="py-1" @click="sort('gain')">
                Gain<component
                  :is="sorting.down ? ArrowDown : ArrowUp"
                  v-if="sorting?.by === 'gain'"
                  class="inline size-3"
                  aria-hidden="true"
                />
              </button>
            </th>
            <th scope="col" class="px-1 text-left font-normal">Pad, 48 V</th>
            <th
              v-for="column in columns.slice(3)"
              :key="column"
              scope="col"
              :aria-sort="ariaSort(column)"
              class="px-1 text-right font-normal"
            >
              <button type="button" class="py-1" @click="sort(column)">
                {{ HEADS[column]
                }}<component
                  :is="sorting.down ? ArrowDown : ArrowUp"
                  v-if="sorting?.by === column"
                  class="inline size-3"
                  aria-hidden="true"
                />
              </button>
            </th>
            <th
              v-for="bus in busses"
              :key="bus.id"
              scope="col"
              class="px-1 text-right font-normal"
              :title="`Send to ${bus.name}`"
              :data-bus-head="bus.id"
            >
              {{ bus.name }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(row, r) in rows"
            :key="row.strip.id"
            class="border-t border-line"
            :class="{ 'bg-sheet': row.strip.id === view.strip?.id }"
            :data-row="r"
            :data-mix-row="row.strip.id"
          >
            <th
              scope="row"
              class="max-w-40 px-1 text-left font-semibold"
              data-column="0"
              :tabindex="grid.tabindex(r, 0)"
            >
              <span class="flex items-center gap-1">
                <component
                  :is="MARKS[row.needs].icon"
                  v-if="row.needs"
                  class="size-3.5 shrink-0"
                  :class="MARKS[row.needs].tone"
                  :aria-label="MARKS[row.needs].word"
                />
                <NuxtLink
                  :to="{ path: `/path/${store.key}`, query: { strip: row.strip.id } }"
                  class="min-w-0 truncate py-1 underline decoration-dotted pointer-coarse:leading-9"
                  :title="row.strip.name"
                  @click="view.select(row.strip.id)"
                  >{{ row.strip.name }}</NuxtLink
                >
              </span>
              <span v-if="isBus(row.strip)" class="block text-xs font-normal text-muted">bus</span>
            </th>
            <td class="px-1 whitespace-nowrap" data-column="1" :tabindex="grid.tabindex(r, 1)">
              <template v-if="row.input"
                ><span class="figure">{{ row.input.number }}</span>
                <span class="text-muted" :title="row.input.unit">{{ row.input.port }}</span></template
              >
              <span v-else class="text-muted">–</span>
            </td>
            <td class="px-1 py-0.5" data-column="2" :tabindex="grid.tabindex(r, 2)">
              <MiniSection
                v-if="row.evaluated.points.length > 0"
                :evaluated="row.evaluated"
                :name="row.strip.name"
              /><span v-else class="text-muted">nothing feeds it</span>
            </td>
            <td class="px-1 text-right whitespace-nowrap" data-column="3" :tabindex="grid.tabindex(r, 3)">
              <template v-if="row.control">
                <span class="flex items-center justify-end gap-0.5"
                  ><NumberInput
                    :value="row.control.value"
                    :field="gainField(row.control)"
                    :name="`Gain of ${row.strip.name}`"
                    :step="row.control.range.gainStep || 0.5"
                    :commit="setGain(row.strip.id, row.control)" />
                  <TurnHandle
                    :control="turnedGain(row.strip.id, row.control)"
                    :name="`Gain of ${row.strip.name}, drag`"
                /></span>
                <span v-if="knob(row.control)" class="block text-xs text-muted">{{ knob(row.control) }}</span>
              </template>
              <span v-else class="text-muted">–</span>
            </td>
            <td class="px-1 whitespace-nowrap" :class="bracket(r)" data-column="4" :tabindex="grid.tabindex(r, 4)">
              <SwitchChip
                v-if="row.pad"
                class="block!"
                :on="row.pad.in"
                label="pad"
                @change="setPad(row.strip.id, row.pad.stage)($event)"
              />
              <SwitchChip
                v-if="row.phantom"
                :on="row.phantom.on"
                label="48 V"
                caution="Mute the outputs first, wait before plugging or unplugging, and mind what else the bank feeds."
                @change="edit.phantom(row.phantom.stage)($event)"
              />
              <span v-if="row.phantom?.bank" class="text-xs text-muted" :title="`Bank ${row.phantom.bank}: one switch`">
                {{ row.phantom.bank }}</span
              >
            </td>
            <td class="figure px-1 text-right" data-column="5" :tabindex="grid.tabindex(r, 5)" :data-pfl="row.strip.id">
              {{ row.pfl === null ? '–' : formatDecimal(row.pfl, 1) }}
            </td>
            <td
              class="figure px-1 text-right"
              data-column="6"
              :tabindex="grid.tabindex(r, 6)"
              :data-recorded="row.strip.id"
            >
              {{ row.recorded === null ? '–' : formatDecimal(row.recorded, 1) }}
            </td>
            <td class="px-1 text-right" data-column="7" :tabindex="grid.tabindex(r, 7)">
              <template v-if="row.floor"
                >{{ noiseWords[row.floor.name] }}
                <span class="figure">{{ formatDecimal(100 * row.floor.share, 0) }} %</span></template
              ><span v-else class="text-muted">–</span>
            </td>
            <td class="px-1 text-right" data-column="8" :tabindex="grid.tabindex(r, 8)">
              <template v-if="row.tightest"
                ><span class="figure">{{ formatDecimal(row.tightest.headroom, 1) }}</span>
                <span class="text-muted">dB</span
                ><span class="block max-w-24 truncate text-xs text-muted" :title="row.tightest.place">{{
                  row.tightest.place
                }}</span></template
              ><span v-else class="text-muted">–</span>
            </td>
            <td class="figure px-1 text-right whitespace-nowrap" data-column="9" :tabindex="grid.tabindex(r, 9)">
              {{ row.roundTrip ? `${routeFigure(row.roundTrip)} ms` : '–' }}
            </td>
            <td
              v-for="(bus, b) in busses"
              :key="bus.id"
              class="px-1 text-right"
              :data-column="10 + b"
              :tabindex="grid.tabindex(r, 10 + b)"
            >
              <SendCell :strip="row.strip" :bus="bus" />
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="rows.length === 0" class="p-4" data-nothing-needed>
        Nothing needs anything: no stop, nothing to see to.
      </p>
    </div>
    <p class="text-xs text-muted">
      Peaks in dB at PFL against the desk’s zero mark, in dBFS recorded. Arrow keys walk the table, Enter goes into a
      field, Escape comes back.
    </p>
  </div>
</template>

<style scoped>
.bank-begin,
.bank-on,
.bank-end {
  border-left: 2px solid var(--muted);
}
.bank-begin {
  box-shadow: inset 0 2px 0 -0.5px var(--muted);
}
.bank-end {
  box-shadow: inset 0 -2px 0 -0.5px var(--muted);
}
td:focus-visible,
th:focus-visible {
  outline: 2px solid var(--change);
  outline-offset: -2px;
}
</style>
