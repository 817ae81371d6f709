<script setup lang="ts">
import { computed } from 'vue'
import { noiseWords } from '#core/evaluation/verdict'
import { windowOf } from '#core/uncertainty/window'
import type { ConventionRow } from '#core/plan/compare-conventions'
import { compareConventions } from '#core/plan/compare-conventions'
import type { ConventionId } from '#core/model'
import { DEFAULT_CONVENTION, conventions, isBus } from '#core/model'
import { applyChanges } from '#core/edits'
import { formatDecimal } from '#core/units'
import { useStripStages } from '~/composables/use-strip-stages'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import ConventionRuler from './ConventionRuler.vue'

/** Every level convention on this very strip: what it sets, what it leaves, what it costs. */
const store = useSessionStore()
const view = useViewStore()
const { controls, stages } = useStripStages()

const rows = computed(() => {
  const { committed: session } = store
  const { strip } = view
  if (!session || !strip) return []
  return compareConventions(session, strip.id).map((row) => ({
    ...row,
    window: windowOf(session, strip, stages.value, row.convention),
  }))
})
const gainHead = computed(() => (controls.value.length > 1 ? 'Gains, sum' : 'Gain'))
function adopt(convention: ConventionId) {
  const row = rows.value.find((each) => each.convention === convention)
  const strip = view.strip?.id
  if (!row || !strip) return
  store.edit(`Adopt ${conventions[convention].name}`, (session) =>
    applyChanges(
      { ...session, target: convention },
      row.gains.map(({ stage, setting, value }) => ({ strip, stage, setting, to: value })),
    ),
  )
}
/** What a convention gives away against the best of all, in words. */
function costs({ snrCost, headroomCost }: ConventionRow): string {
  const said = [
    ...((snrCost ?? 0) >= 0.05 ? [`${formatDecimal(snrCost, 1)} dB more noise`] : []),
    ...(headroomCost >= 0.05 ? [`${formatDecimal(headroomCost, 1)} dB less headroom`] : []),
  ]
  return said.length > 0 ? `${said.join(' and ')} than the best` : 'nothing: best in both'
}
const title = (gains: { stage: string; setting: string; value: number }[]) =>
  gains.map((each) => `${each.setting} ${formatDecimal(each.value, 1)} dB`).join(', ')
</script>

<template>
  <div class="h-full overflow-auto pr-1 card:pl-13" tabindex="0" aria-label="Level conventions side by side">
    <p v-if="rows.length === 0" class="text-muted">
      {{
        view.strip && isBus(view.strip)
          ? 'No level is read here: a bus without a converter is as loud as one wants it.'
          : 'This strip reaches no recorder yet: add an interface input at its end.'
      }}
    </p>
    <template v-else>
      <table class="stacked w-full text-right">
        <caption class="sr-only">
          Level conventions compared on this strip
        </caption>
        <thead>
          <tr class="border-b border-ink">
            <th scope="col" class="py-1 text-left font-semibold">Convention</th>
            <th scope="col" class="w-[26%] pl-3 text-left font-semibold">Window and strip, 0 to −100 dBFS</th>
            <th scope="col" class="pl-2 font-semibold">{{ gainHead }}</th>
            <th scope="col" class="pl-2 font-semibold">Peak</th>
            <th scope="col" class="pl-2 font-semibold">After surge</th>
            <th scope="col" class="pl-2 font-semibold">SNR</th>
            <th scope="col" class="pl-4 text-left font-semibold">Floor</th>
            <th scope="col" class="pl-3 text-left font-semibold">Costs</th>
            <th scope="col"><span class="sr-only">Adopt</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.convention"
            class="border-b border-line align-baseline"
            :class="{ 'bg-change-soft': store.session?.target === row.convention }"
            :data-convention="row.convention"
          >
            <th scope="row" class="py-1 text-left font-semibold" data-wide="3">
              {{ conventions[row.convention].name
              }}<span class="block font-normal text-muted">{{ conventions[row.convention].users }}</span>
            </th>
            <td class="pl-3 align-middle" data-wide="3">
              <ConventionRuler
                :window="row.window"
                :average="row.average"
                :peak="row.peak"
                :surge="-row.afterSurge"
                :noise="row.snr === null ? null : row.average - row.snr"
              />
            </td>
            <td class="figure pl-2 whitespace-nowrap" :data-label="gainHead" :title="title(row.gains)">
              {{ formatDecimal(row.gain, 1) }} dB
            </td>
            <td class="figure pl-2" data-label="Peak">{{ formatDecimal(row.peak, 1) }}</td>
            <td
              class="figure pl-2"
              data-label="After surge"
              :class="{ 'font-semibold text-ceiling': row.afterSurge < 0 }"
            >
              {{ formatDecimal(row.afterSurge, 1) }}
            </td>
            <td class="figure pl-2" data-label="SNR">{{ formatDecimal(row.snr, 1) }}</td>
            <td class="pl-4 text-left" data-label="Floor" data-wide="4">
              {{ row.floor ? `${noiseWords[row.floor.name]}, ${formatDecimal(100 * row.floor.share, 0)} %` : '–' }}
            </td>
            <td class="pl-3 text-left" data-label="Costs" data-wide="4">{{ costs(row) }}</td>
            <td class="pl-2">
              <span v-if="store.session?.target === row.convention" class="text-muted">in use</span
              ><button v-else type="button" class="action" @click="adopt(row.convention)">
                Adopt<span class="sr-only"> {{ conventions[row.convention].name }}</span>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="mt-2 text-muted">
        The bracket is the window; solid is this strip from average to peak, lighter its surge, grey its noise floor,
        hatched is clipping. Levels in dBFS, the rest in dB. All are common practice.
        {{ conventions[DEFAULT_CONVENTION].name }} is the default: {{ conventions[DEFAULT_CONVENTION].why }}
      </p>
    </template>
  </div>
</template>
