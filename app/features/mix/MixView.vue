<script setup lang="ts">
import { computed, ref } from 'vue'
import type { MixRow } from '#core/evaluation/mix'
import { mixRows } from '#core/evaluation/mix'
import { isBus } from '#core/model'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SwitchChip from '~/shared/fields/SwitchChip.vue'
import { useGridKeys } from './use-grid-keys'
import { usePlanGesture } from '~/composables/use-plan-gesture'
import { useSends } from '~/shared/sends/use-sends'
import { useVirtualList } from '~/composables/use-virtual-list'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import OwnTask from '~/shared/ui/OwnTask.vue'
import MixLine from './MixLine.vue'
import SortHead from './SortHead.vue'

/** All strips of the session at once, one line each: what an engineer with twelve microphones looks at. */
const store = useSessionStore()
const plan = usePlanGesture()
const { busses } = useSends()
const { isCompact } = useStripStages()

type Column = 'name' | 'input' | 'gain' | 'pfl' | 'recorded' | 'floor' | 'tightest' | 'roundTrip'
const HEADS: Record<Column, string> = {
  name: 'Strip',
  input: 'Input',
  gain: 'Gain',
  pfl: 'At PFL',
  recorded: 'Recorded',
  floor: 'Floor',
  tightest: 'Least headroom',
  roundTrip: 'To the ear',
}
const VALUE: Record<Column, (row: MixRow) => number | string | null> = {
  name: ({ strip }) => strip.name,
  input: ({ input }) => input?.number ?? null,
  gain: ({ control }) => control?.value ?? null,
  pfl: ({ pfl }) => pfl?.peak ?? null,
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
const orders = [
  { value: 'session', text: 'the session' },
  ...Object.entries(HEADS).map(([value, text]) => ({ value, text: text.toLowerCase().replace('pfl', 'PFL') })),
] as { value: Column | 'session'; text: string }[]
function orderBy(by: Column | 'session') {
  sorting.value = by === 'session' ? null : { by, down: false }
  return null
}
const sorted = (by: Column) =>
  sorting.value?.by !== by ? undefined : sorting.value.down ? ('descending' as const) : ('ascending' as const)

const onlyNeeding = ref(false)
const all = computed(() => (store.session && store.evaluation ? mixRows(store.session, store.evaluation) : []))
const needing = computed(() => all.value.filter(({ needs }) => needs && needs.severity !== 'note'))
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

/** Lines share the height that is there, up to so much each, px. */
const MOST_HIGH = 76
/** A line that was not measured yet, px. */
const USUAL = 56
const entries = computed(() => rows.value.map((row) => ({ id: row.strip.id, row })))
const { scroller, shown, above, below, measure, reveal } = useVirtualList(() => entries.value, USUAL)

/** A bank's bracket: where it begins, runs on and ends among the lines that stand together. */
function bracket(i: number): string {
  const bank = (row: MixRow | undefined) => (row?.phantom?.bank ? row.phantom.switchId : null)
  const own = bank(rows.value[i])
  if (!own) return ''
  const [above, below] = [bank(rows.value[i - 1]) === own, bank(rows.value[i + 1]) === own]
  return above && below ? 'bank-on' : above ? 'bank-end' : below ? 'bank-begin' : 'bank-alone'
}

const told = computed(() => {
  const settings = plan.applied.value?.settings
  if (!settings) return null
  return settings.length === 0
    ? 'Everything is as planned.'
    : `${settings.length} ${settings.length === 1 ? 'setting was' : 'settings were'} changed.`
})
const planned = computed(() => store.plan?.settings.length ?? 0)
const plannedOf = ({ strip, control }: MixRow) =>
  store.plan?.settings.find(
    (each) => each.strip === strip.id && each.stage === control?.stage && each.setting === control.setting,
  )?.to ?? null
const notes = computed(() =>
  (store.plan?.strips ?? []).flatMap(({ strip, notes: said }) => {
    const of = store.session?.strips.find(({ id }) => id === strip)
    return of && isBus(of) ? said.map((words) => ({ name: of.name, words })) : []
  }),
)

const table = ref<HTMLElement | null>(null)
const grid = useGridKeys(table, () => shown.value.map(({ index }) => index), reveal)
/** Columns before the gain, and behind its switches. */
const START = ['name', 'input'] as const satisfies readonly Column[]
const END = ['pfl', 'recorded', 'floor', 'tightest', 'roundTrip'] as const satisfies readonly Column[]
</script>

<template>
  <div v-if="store.session" class="flex min-h-0 grow flex-col gap-2 px-2 py-2 card:px-5" data-mix>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <h2 class="grow">All strips</h2>
      <label v-if="isCompact" class="flex items-center gap-2"
        >In order of
        <SelectInput :value="sorting?.by ?? 'session'" label="In order of" :options="orders" :commit="orderBy"
      /></label>
      <SwitchChip
        :on="onlyNeeding"
        :label="`needs attention only (${needing.length})`"
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
    <div
      ref="scroller"
      class="min-h-0 grow overflow-auto border-t border-ink"
      tabindex="0"
      role="group"
      aria-label="All strips, table"
    >
      <table
        ref="table"
        class="stacked w-full border-collapse text-[13px]"
        :style="{ height: `min(100%, ${rows.length * MOST_HIGH}px)` }"
        :aria-rowcount="rows.length + 1"
        @keydown="grid.keys"
      >
        <thead class="sticky top-0 z-10 bg-paper text-xs text-muted">
          <tr>
            <SortHead v-for="column in START" :key="column" :sorted="sorted(column)" @sort="sort(column)">
              {{ HEADS[column] }}
            </SortHead>
            <th scope="col" class="px-1 text-left font-normal">Section, clip to −110</th>
            <SortHead :sorted="sorted('gain')" end @sort="sort('gain')">{{ HEADS.gain }}</SortHead>
            <th scope="col" class="px-1 text-left font-normal">Pad, 48 V</th>
            <SortHead v-for="column in END" :key="column" :sorted="sorted(column)" end @sort="sort(column)">
              {{ HEADS[column] }}
            </SortHead>
            <th
              v-for="bus in busses"
              :key="bus.id"
              scope="col"
              class="px-1 text-right font-normal"
              :title="`Send to ${bus.name}`"
              :data-bus-head="bus.id"
            >
              {{ bus.name }}, dB
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-if="above > 0" aria-hidden="true" :style="{ height: `${above}px` }" />
          <OwnTask>
            <MixLine
              v-for="{ index, item } in shown"
              :key="item.id"
              :ref="measure"
              :row="item.row"
              :busses="busses"
              :planned="plannedOf(item.row)"
              :bracket="bracket(index)"
              :tabindex="(column) => grid.tabindex(index, column)"
              :aria-rowindex="index + 2"
              :data-index="index"
              :data-row="index"
            />
          </OwnTask>
          <tr v-if="below > 0" aria-hidden="true" :style="{ height: `${below}px` }" />
        </tbody>
      </table>
      <p v-if="rows.length === 0" class="p-4" data-nothing-needed>Nothing needs attention: no stop, no caution.</p>
    </div>
    <p class="text-xs text-muted">
      Peaks in dB at PFL against the desk’s zero mark, in dBFS recorded. Arrow keys move through the table, Enter opens
      a field, Escape leaves it.
    </p>
  </div>
</template>
