<script setup lang="ts">
import { latePart } from '~/stores/late-part'
import { computed, onMounted, ref } from 'vue'
import { measurable } from '#core/bench/bench'
import { compareUnits, comparisonTable, differencesOf } from '#core/bench/compare-units'
import { inItsPlace } from '#core/bench/in-its-place'
import type { AnalogueInput, AudioInterface } from '#core/gear'
import { analogueInput, isInterface } from '#core/gear'
import { formatDecimal, formatSigned } from '#core/units'
import GainMap from '~/shared/gear/GainMap.vue'
import { saveFile } from '~/composables/file-access'
import { useSessionStore } from '~/stores/session'
import { useShelfStore } from '~/stores/shelf'
import { useViewStore } from '~/stores/view'

/** Units side by side, printed and measured, and what each would change in the strip that is looked at. */
const store = useSessionStore()
const shelf = useShelfStore()
const view = useViewStore()
onMounted(() => shelf.open())

const own = computed(() => (store.session ? measurable(store.session) : []))
const all = computed<AudioInterface[]>(() => {
  const ids = new Set(own.value.flatMap(({ id, shelf: copyOf }) => [id, copyOf]))
  const others = shelf.items.filter((item): item is AudioInterface => isInterface(item) && !ids.has(item.id))
  // Those that could take the strip's source come first.
  const fits = (unit: AudioInterface) => unit.inputs.some((input) => input.type === type.value)
  return [...own.value, ...others.filter(fits), ...others.filter((unit) => !fits(unit))]
})
const taken = ref<string[] | null>(null)
const chosen = computed(() => taken.value ?? all.value.slice(0, 3).map(({ id }) => id))
const units = computed(() => all.value.filter(({ id }) => chosen.value.includes(id)))
const toggle = (id: string) => {
  taken.value = chosen.value.includes(id) ? chosen.value.filter((each) => each !== id) : [...chosen.value, id]
}

const stage = computed(
  () => view.strip?.stages.findLast((each) => own.value.some(({ id }) => id === each.gear)) ?? null,
)
const driver = computed(() => own.value.find(({ id }) => id === stage.value?.gear))
const type = computed(
  () => (driver.value && stage.value?.port ? analogueInput(driver.value, stage.value.port)?.type : undefined) ?? 'mic',
)
const comparison = computed(
  () => store.session && compareUnits(store.session, units.value, type.value, driver.value?.id),
)
/** What each unit's input of that type can hold; the strip's own with where it is set. */
const maps = computed(() =>
  units.value.flatMap((unit) => {
    const own = unit.id === driver.value?.id && stage.value?.port ? analogueInput(unit, stage.value.port) : undefined
    const input = own ?? unit.inputs.find((each): each is AnalogueInput => each.type === type.value)
    return input ? [{ unit: unit.id, input, name: unit.name, set: own && stage.value?.settings.gain }] : []
  }),
)
const places = computed(() => (store.session && view.strip ? inItsPlace(store.session, view.strip, units.value) : []))

async function exportTable() {
  if (!comparison.value) return
  const part = await latePart(() => import('~/composables/csv'))
  if (!part) return
  await saveFile(part.writeCsv(comparisonTable(comparison.value)), 'text/csv', 'remetra-units.csv', 'remetra-units')
}
</script>

<template>
  <section aria-labelledby="compare-title" data-compare>
    <header class="flex items-baseline justify-between border-b border-ink pb-1">
      <h2 id="compare-title" class="text-[15px]">Compare units</h2>
      <button v-if="units.length > 0" type="button" class="push" @click="exportTable">Export as CSV</button>
    </header>
    <p class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
      <label v-for="unit in all" :key="unit.id" class="inline-flex items-baseline gap-1"
        ><input type="checkbox" class="accent-change" :checked="chosen.includes(unit.id)" @change="toggle(unit.id)" />
        {{ unit.name }}{{ own.some(({ id }) => id === unit.id) ? ', in the session' : '' }}</label
      >
    </p>
    <p v-if="units.length < 2" class="mt-2 text-muted">
      Choose two units or more. Units come from the session and from the gear shelf.
    </p>
    <template v-if="comparison && units.length > 0">
      <div class="mt-2 overflow-x-auto" tabindex="0" aria-label="Units side by side">
        <table class="text-right">
          <thead>
            <tr class="align-bottom">
              <td />
              <th
                v-for="unit in comparison.units"
                :key="unit.id"
                scope="colgroup"
                colspan="2"
                class="border-b border-rule px-3 pt-1 text-left font-semibold"
              >
                {{ unit.name
                }}<span class="block font-normal text-muted"
                  >{{ unit.input }}{{ unit.output ? `, ${unit.output}` : '' }}</span
                >
              </th>
            </tr>
            <tr class="border-b border-ink text-muted">
              <th scope="col" class="pr-4 text-left font-normal">
                At {{ formatDecimal((store.session?.system.sampleRate ?? 0) / 1000, 1) }} kHz
              </th>
              <template v-for="unit in comparison.units" :key="unit.id"
                ><th scope="col" class="px-3 font-normal">data sheet</th>
                <th scope="col" class="px-3 font-normal">measured</th></template
              >
              <th v-if="comparison.units.length > 1" scope="col" class="pl-3 text-left font-normal">
                against {{ comparison.units[0]?.name }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in comparison.rows" :key="row.title" class="border-b border-line" :data-compared="row.title">
              <th scope="row" class="pr-4 text-left font-normal">
                {{ row.title }}, <span class="text-muted">{{ row.unit }}</span>
              </th>
              <template v-for="(value, i) in row.values" :key="i"
                ><td class="figure px-3">{{ formatDecimal(value.printed, row.digits) }}</td>
                <td class="figure px-3 font-semibold">{{ formatDecimal(value.measured, row.digits) }}</td></template
              >
              <td v-if="comparison.units.length > 1" class="pl-3 text-left" data-difference>
                <span
                  v-for="each in differencesOf(comparison, row)"
                  :key="each.unit"
                  class="block whitespace-nowrap"
                  :class="each.isLarger ? 'font-semibold' : 'text-muted'"
                  >{{ each.unit }} {{ formatSigned(each.by, row.digits) }} ± {{ formatDecimal(each.give, row.digits)
                  }}{{ each.isLarger ? ': differs' : ': may be the same' }}</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="mt-1 text-xs text-muted">
        Input noise is that of the preamp with 150 Ω and of the converter together, counted at the input; the gain
        counts from the lowest. A difference is shown only if it is larger than both uncertainties together.
      </p>
      <div class="mt-3 grid gap-4 card:grid-cols-2 column:grid-cols-3">
        <GainMap v-for="map in maps" :key="map.unit" :input="map.input" :name="map.name" :set="map.set" />
      </div>
      <div v-if="places.length > 0" class="plate mt-3 px-3 py-2">
        <h3>In place of {{ driver?.name }} in {{ view.strip?.name }}, set for the same level in the recording</h3>
        <p v-for="place in places" :key="place.unit" :data-place="place.unit">
          <strong>{{ units.find(({ id }) => id === place.unit)?.name }}</strong>: {{ place.words }}.
        </p>
      </div>
    </template>
  </section>
</template>
