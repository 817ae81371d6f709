<script setup lang="ts">
import { CircleAlert, Info, OctagonX } from '@lucide/vue'
import { computed } from 'vue'
import { NuxtLink } from '#components'
import { gainToPosition, positionInWords } from '#core/chain/knob'
import type { GainControl } from '#core/chain/gain-control'
import type { MixRow } from '#core/evaluation/mix'
import { noiseWords } from '#core/evaluation/verdict'
import { routeFigure } from '#core/latency/route-words'
import type { Strip } from '#core/model'
import { feedsOf, isBus, settingFields } from '#core/model'
import { db, formatDecimal, formatSigned } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SwitchChip from '~/shared/fields/SwitchChip.vue'
import { turnedGain } from '~/composables/turned'
import { useSends } from '~/shared/sends/use-sends'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import GainMark from './GainMark.vue'
import MiniSection from './MiniSection.vue'
import SendCell from './SendCell.vue'
import TurnHandle from './TurnHandle.vue'

/** One strip in one line of the overview. */
const props = defineProps<{
  row: MixRow
  busses: readonly Strip[]
  /** What the plan would set its gain to, where it is another. */
  planned: number | null
  /** How this line’s part of a phantom bank is drawn. */
  bracket: string
  tabindex: (column: number) => number
}>()
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()
const sends = useSends()
const feeds = computed(() => new Map(feedsOf(props.row.strip).map((feed) => [feed.to, feed])))
const open = computed(() => new Set(sends.open(props.row.strip).map(({ id }) => id)))

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
  caution: { icon: CircleAlert, word: 'needs attention', tone: 'text-ceiling' },
  note: { icon: Info, word: 'a note', tone: 'text-muted' },
} as const
</script>

<template>
  <tr
    class="border-t border-line"
    :class="{ 'bg-sheet': row.strip.id === view.strip?.id }"
    :data-mix-row="row.strip.id"
  >
    <th
      scope="row"
      class="max-w-40 min-w-28 px-1 text-left font-semibold"
      data-wide="4"
      data-column="0"
      :tabindex="tabindex(0)"
    >
      <span class="flex items-center gap-1">
        <component
          :is="MARKS[row.needs.severity].icon"
          v-if="row.needs"
          class="size-3.5 shrink-0"
          :class="MARKS[row.needs.severity].tone"
          :aria-label="MARKS[row.needs.severity].word"
        />
        <NuxtLink
          :to="{ path: `/path/${store.key}`, query: { strip: row.strip.id } }"
          class="min-w-0 py-1 wrap-break-word underline decoration-dotted pointer-coarse:leading-9"
          >{{ row.strip.name }}</NuxtLink
        >
      </span>
      <span v-if="isBus(row.strip) || row.needs" class="block text-xs font-normal text-muted"
        >{{ isBus(row.strip) ? 'bus' : '' }}{{ isBus(row.strip) && row.needs ? ', ' : ''
        }}<span v-if="row.needs" :class="MARKS[row.needs.severity].tone" data-needs>{{ row.needs.words }}</span></span
      >
    </th>
    <td class="px-1 whitespace-nowrap" data-label="Input" data-column="1" :tabindex="tabindex(1)">
      <template v-if="row.input"
        ><span class="figure">{{ row.input.number }}</span>
        <span class="text-muted" :title="row.input.unit">{{ row.input.port }}</span></template
      >
      <span v-else class="text-muted">–</span>
    </td>
    <td class="relative min-h-14 min-w-28 px-1 py-0.5" data-wide="3" data-column="2" :tabindex="tabindex(2)">
      <MiniSection
        v-if="row.evaluated.points.length > 0"
        :evaluated="row.evaluated"
        :name="row.strip.name"
        :target="row.target"
      /><span v-else class="text-muted">nothing feeds it</span>
    </td>
    <td class="px-1 text-right whitespace-nowrap" data-wide="3" data-column="3" :tabindex="tabindex(3)">
      <template v-if="row.control">
        <span class="flex items-center justify-end gap-0.5"
          ><NumberInput
            :value="row.control.value"
            :field="gainField(row.control)"
            :name="`Gain of ${row.strip.name}`"
            :step="row.control.range.gainStep || 0.5"
            :commit="setGain(row.strip.id, row.control)" />
          <TurnHandle :control="turnedGain(row.strip.id, row.control)" :name="`Gain of ${row.strip.name}, drag`"
        /></span>
        <GainMark :control="row.control" :planned="planned" />
        <span v-if="knob(row.control)" class="block text-xs text-muted">{{ knob(row.control) }}</span>
      </template>
      <span v-else class="text-muted">–</span>
    </td>
    <td class="px-1 whitespace-nowrap" :class="bracket" data-column="4" :tabindex="tabindex(4)">
      <SwitchChip
        v-if="row.pad"
        class="mr-1"
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
    <td
      class="figure px-1 text-right"
      data-label="At PFL"
      data-column="5"
      :tabindex="tabindex(5)"
      :data-pfl="row.strip.id"
    >
      <template v-if="row.pfl"
        >{{ formatDecimal(row.pfl.peak, 1) }}
        <span class="block min-w-14 text-xs text-muted"
          >0 = {{ formatSigned(row.pfl.zero, 1) }} dBu{{ row.pfl.assumed ? ', assumed' : '' }}</span
        ></template
      ><template v-else>–</template>
    </td>
    <td
      class="figure px-1 text-right"
      data-label="Recorded"
      data-column="6"
      :tabindex="tabindex(6)"
      :data-recorded="row.strip.id"
    >
      {{ row.recorded === null ? '–' : formatDecimal(row.recorded, 1) }}
    </td>
    <td class="px-1 text-right whitespace-nowrap" data-label="Floor" data-column="7" :tabindex="tabindex(7)">
      <template v-if="row.floor"
        >{{ noiseWords[row.floor.name] }}
        <span class="figure">{{ formatDecimal(100 * row.floor.share, 0) }} %</span></template
      ><span v-else class="text-muted">–</span>
    </td>
    <td class="px-1 text-right" data-label="Least headroom" data-column="8" :tabindex="tabindex(8)">
      <template v-if="row.tightest"
        ><span class="figure">{{ formatDecimal(row.tightest.headroom, 1) }}</span> <span class="text-muted">dB</span
        ><span class="block min-w-20 text-xs text-muted">{{ row.tightest.place }}</span></template
      ><span v-else class="text-muted">–</span>
    </td>
    <td
      class="figure px-1 text-right whitespace-nowrap"
      data-label="To the ear"
      data-column="9"
      :tabindex="tabindex(9)"
    >
      {{ row.roundTrip ? `${routeFigure(row.roundTrip)} ms` : '–' }}
    </td>
    <td
      v-for="(bus, b) in busses"
      :key="bus.id"
      class="px-1 text-right"
      :data-label="`${bus.name}, dB`"
      :data-column="10 + b"
      :tabindex="tabindex(10 + b)"
    >
      <SendCell
        :strip="row.strip.id"
        :name="row.strip.name"
        :bus="bus.id"
        :bus-name="bus.name"
        :feed="feeds.get(bus.id) ?? null"
        :can-begin="open.has(bus.id)"
        @begin="sends.begin(row.strip, bus)"
      />
    </td>
  </tr>
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
