<script setup lang="ts">
import { computed, ref } from 'vue'
import { feedersById } from '#core/chain/graph'
import type { NextMeasurement, VerdictFigure } from '#core/uncertainty/next'
import { formatDecimal } from '#core/units'
import { useMeasureNext } from './use-measure-next'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import ReadingLine from './ReadingLine.vue'

/** What would make the figures more certain for the least trouble: a short list, each with its place one press away. */
const props = defineProps<{
  /** Of all strips; without it what helps the strip that is looked at. */
  all?: boolean
  /** How many are shown; more is not read beside other work. */
  most?: number
}>()
const store = useSessionStore()
const view = useViewStore()
const { lead } = useMeasureNext()

const MOST = 4
const reading = ref<string | null>(null)
const items = computed(() => {
  const next = view.sureness?.next ?? []
  return (props.all ? next : next.filter(({ strip }) => leading.value.has(strip))).slice(0, props.most ?? MOST)
})
/** The strip that is looked at, and on a bus whatever leads to it. */
const leading = computed(() => {
  const found = new Set([view.strip?.id ?? ''])
  const feeders = feedersById(store.session?.strips ?? [])
  for (const id of found) for (const feeder of feeders.get(id) ?? []) found.add(feeder)
  return found
})
const OF: Record<VerdictFigure, { words: string; unit: string; digits: number }> = {
  headroom: { words: 'headroom', unit: 'dB', digits: 1 },
  snr: { words: 'over the noise', unit: 'dB', digits: 1 },
  roundTrip: { words: 'to the ears', unit: 'ms', digits: 2 },
}
const gain = ({ figure, before, after }: NextMeasurement) => {
  const { unit, digits, words } = OF[figure]
  return `± ${formatDecimal(2 * before, digits)} → ± ${formatDecimal(2 * after, digits)} ${unit} ${words}`
}
const keyOf = ({ what, strip, place }: NextMeasurement) => `${what} ${strip} ${place.at}`
const nameOf = (id: string) => store.session?.strips.find((strip) => strip.id === id)?.name ?? ''
function go(each: NextMeasurement) {
  if (each.place.at !== 'reading') return lead(each)
  reading.value = reading.value === keyOf(each) ? null : keyOf(each)
}
</script>

<template>
  <section v-if="view.sureness" aria-labelledby="measure-next-title" data-measure-next>
    <h2 id="measure-next-title" class="border-b border-ink pb-0.5">Measure next</h2>
    <p
      v-if="view.sureness.told"
      role="status"
      class="mt-1 flex justify-between gap-2 bg-change-soft px-2 py-1"
      data-gained
    >
      {{ view.sureness.told }}
      <button type="button" class="action" @click="view.sureness.told = null">Close</button>
    </p>
    <p v-if="!view.sureness.isKnown" class="mt-1 text-muted">Working out what is worth measuring…</p>
    <p v-else-if="items.length === 0" class="mt-1 text-muted">
      Nothing that can be measured in a few minutes would make {{ all ? 'these figures' : 'this strip' }} noticeably
      more certain.
    </p>
    <ol
      v-else
      class="mt-1 gap-x-6 gap-y-1.5"
      :class="all && most === undefined ? 'grid card:grid-cols-2 column:grid-cols-4' : 'space-y-1.5'"
    >
      <li v-for="each in items" :key="keyOf(each)" :data-next="each.place.at">
        <button
          type="button"
          class="action block w-full text-left"
          :aria-expanded="each.place.at === 'reading' ? reading === keyOf(each) : undefined"
          @click="go(each)"
        >
          {{ each.what }}
        </button>
        <span class="block text-muted"
          >{{ all || each.strip !== view.strip?.id ? `${nameOf(each.strip)}: ` : ''
          }}<span class="figure">{{ gain(each) }}</span
          >, {{ each.minutes }} min</span
        >
        <ReadingLine
          v-if="each.place.at === 'reading' && reading === keyOf(each)"
          :strip="each.strip"
          :stage="each.place.stage"
        />
      </li>
    </ol>
  </section>
</template>
