<script setup lang="ts">
import { computed, ref } from 'vue'
import { compareSessions, lastDifferent } from '#core/log/compare'
import type { FigureChange } from '#core/log/compare'
import { formatDecimal, formatSigned } from '#core/units'
import { useLogViewStore } from './log-view'
import MarkSelect from './MarkSelect.vue'

/** Two states of the session: settings, gear, and what the change did to headroom, floor and time. */
const view = useLogViewStore()
/** Without a mark that was asked for, the last two that differ. */
const opened = view.wantedMark === null ? lastDifferent(view.marks, (id) => view.sessionOf(id)) : null
const from = ref<string | null>(opened?.from ?? view.mark?.id ?? null)
/** The state that the mark is compared with: now, or another mark. */
const to = ref<string | null>(opened?.to ?? null)
const compared = computed(() => {
  const [before, other] = [from.value === null ? null : view.stateOf(from.value), view.stateOf(to.value)]
  return before && other ? compareSessions(before, other) : null
})
const nothing = computed(
  () =>
    compared.value && compared.value.settings.length + compared.value.gear.length + compared.value.figures.length === 0,
)
const level = (value: number | null, { digits }: FigureChange) => (value === null ? '–' : formatDecimal(value, digits))
const by = ({ from, to: other, digits }: FigureChange) =>
  from === null || other === null ? '' : formatSigned(other - from, digits)
const tables = computed(() =>
  compared.value
    ? [
        { key: 'settings', title: 'Settings', rows: compared.value.settings },
        { key: 'gear', title: 'Gear', rows: compared.value.gear },
      ].filter(({ rows }) => rows.length > 0)
    : [],
)
</script>

<template>
  <section aria-label="Compare" data-compare>
    <p v-if="from === null" class="text-muted">There is no mark to compare with yet. Add one when everything is set.</p>
    <template v-else>
      <p class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        From
        <MarkSelect :value="from" label="From which mark" @choose="(id) => id && (from = id)" />
        to
        <MarkSelect
          now
          :value="to"
          label="To which state"
          @choose="
            (id) => {
              to = id
            }
          "
        />
      </p>
      <p v-if="nothing" class="mt-2" role="status">Nothing differs.</p>
      <template v-if="compared && compared.figures.length > 0">
        <h2 class="mt-3 border-b border-ink">What it did</h2>
        <table class="w-full max-w-3xl" data-compare-figures>
          <tbody>
            <tr v-for="each in compared.figures" :key="each.strip + each.figure" class="border-b border-line">
              <th scope="row" class="py-1 pr-4 text-left font-normal">
                {{ each.name }}, {{ each.words.toLowerCase() }}
              </th>
              <td class="figure pr-2 text-right">{{ level(each.from, each) }}</td>
              <td class="pr-2 text-muted" aria-hidden="true">→</td>
              <td class="figure pr-4 text-right">{{ level(each.to, each) }}</td>
              <td class="figure pr-2 text-right font-semibold">{{ by(each) }}</td>
              <td class="text-muted">{{ each.unit }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <template v-for="table in tables" :key="table.key">
        <h2 class="mt-3 border-b border-ink">{{ table.title }}</h2>
        <table class="w-full max-w-3xl" :data-compare-table="table.key">
          <tbody>
            <tr v-for="each in table.rows" :key="each.of + each.what" class="border-b border-line align-baseline">
              <th scope="row" class="py-1 pr-4 text-left font-normal">{{ each.of }}: {{ each.what }}</th>
              <td class="pr-2">{{ each.from }}</td>
              <td class="pr-2 text-muted" aria-hidden="true">→</td>
              <td>{{ each.to }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </template>
  </section>
</template>
