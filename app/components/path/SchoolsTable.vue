<script setup lang="ts">
import { computed } from 'vue'
import { noiseWords } from '#core/evaluation/verdict'
import { compareSchools } from '#core/plan/compare-schools'
import type { SchoolId } from '#core/session'
import { DEFAULT_SCHOOL, applyChanges, schools } from '#core/session'
import { formatDecimal } from '#core/units'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Every school of recording level on this very strip: what it sets, what it leaves, what it costs. */
const store = useSessionStore()
const view = useViewStore()
const { controls } = useStripStages()

const rows = computed(() => (store.committed && view.strip ? compareSchools(store.committed, view.strip.id) : []))
const several = computed(() => controls.value.length > 1)
function adopt(school: SchoolId) {
  const row = rows.value.find((each) => each.school === school)
  const strip = view.strip?.id
  if (!row || !strip) return
  store.edit(`Adopt ${schools[school].name}`, (session) =>
    applyChanges(
      { ...session, target: school },
      row.gains.map(({ stage, setting, value }) => ({ strip, stage, setting, to: value })),
    ),
  )
}
const title = (gains: { stage: string; setting: string; value: number }[]) =>
  gains.map((each) => `${each.setting} ${formatDecimal(each.value, 1)} dB`).join(', ')
</script>

<template>
  <div class="h-full overflow-y-auto pr-1 pl-13" tabindex="0" aria-label="Schools side by side">
    <p v-if="rows.length === 0" class="text-muted">
      This strip reaches no recorder yet: add an interface input at its end.
    </p>
    <template v-else>
      <table class="w-full text-right">
        <caption class="sr-only">
          Schools of recording level compared on this strip
        </caption>
        <thead>
          <tr class="border-b border-ink">
            <th scope="col" class="py-1 text-left font-semibold">School</th>
            <th scope="col" class="pl-2 font-semibold">{{ several ? 'Gains, sum' : 'Gain' }}</th>
            <th scope="col" class="pl-2 font-semibold">Peak</th>
            <th scope="col" class="pl-2 font-semibold">After surge</th>
            <th scope="col" class="pl-2 font-semibold">SNR</th>
            <th scope="col" class="pl-4 text-left font-semibold">Floor</th>
            <th scope="col" class="pl-2 font-semibold">Costs</th>
            <th scope="col"><span class="sr-only">Adopt</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.school"
            class="border-b border-line align-baseline"
            :class="{ 'bg-change-soft': store.session?.target === row.school }"
            :data-school="row.school"
          >
            <th scope="row" class="py-1 text-left font-semibold">
              {{ schools[row.school].name
              }}<span class="block font-normal text-muted">{{ schools[row.school].users }}</span>
            </th>
            <td class="figure pl-2" :title="title(row.gains)">{{ formatDecimal(row.gain, 1) }} dB</td>
            <td class="figure pl-2">{{ formatDecimal(row.peak, 1) }}</td>
            <td class="figure pl-2" :class="{ 'font-semibold text-ceiling': row.afterSurge < 0 }">
              {{ formatDecimal(row.afterSurge, 1) }}
            </td>
            <td class="figure pl-2">{{ formatDecimal(row.snr, 1) }}</td>
            <td class="pl-4 text-left">
              {{ row.floor ? `${noiseWords[row.floor.name]}, ${formatDecimal(100 * row.floor.share, 0)} %` : '–' }}
            </td>
            <td class="figure pl-2 whitespace-nowrap">
              <span :title="'Signal-to-noise against the best school'">{{ formatDecimal(row.snrCost, 2) }} SNR</span
              ><br /><span :title="'Headroom against the roomiest school'"
                >{{ formatDecimal(row.headroomCost, 1) }} room</span
              >
            </td>
            <td class="pl-2">
              <span v-if="store.session?.target === row.school" class="text-muted">in use</span
              ><button v-else type="button" class="action" @click="adopt(row.school)">
                Adopt<span class="sr-only"> {{ schools[row.school].name }}</span>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="mt-2 text-muted">
        Levels in dBFS, the rest in dB; what each costs is against the best of the column. All schools are common
        practice. {{ schools[DEFAULT_SCHOOL].name }} is the default: {{ schools[DEFAULT_SCHOOL].why }}
      </p>
    </template>
  </div>
</template>
