<script setup lang="ts">
import AsideNotice from '~/shared/ui/AsideNotice.vue'
import { computed } from 'vue'
import type { CauseId } from '#core/diagnosis/causes'
import { causeOf } from '#core/diagnosis/causes'
import type { DrillKind } from '#core/trainer/drill'
import { drillKinds, drillTitles } from '#core/trainer/drill'
import type { Grade } from '#core/trainer/exercise'
import { grades } from '#core/trainer/exercise'
import { formatDecimal } from '#core/units'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { strangersTitle } from '#core/trainer/six-strangers'
import { DAILY, SET_UP, useTrainerStore } from './trainer-store'

/** Today’s five minutes, what to practise, and how it goes. */
const trainer = useTrainerStore()
const GRADES: Record<Grade, string> = {
  1: '1: one device and its gain',
  2: '2: a device between',
  3: '3: a whole desk',
  4: '4: desk and room, two faults',
}
const options = grades.map((value) => ({ value, text: GRADES[value] }))
const minutes = computed(() => trainer.secondsToday / 60)
const isBusy = computed(() => Boolean(trainer.running ?? trainer.drilling ?? trainer.settingUp))
const part = computed(() => Math.min(1, trainer.secondsToday / DAILY))

/** What comes again, the worst first. */
const rows = computed(() =>
  [...trainer.progress]
    .sort((a, b) => a.box - b.box || a.due - b.due)
    .map(({ kind, good, seen, due, last }) => {
      const [of = '', id = ''] = kind.split(' ')
      const days = due - trainer.today()
      return {
        kind,
        isDrill: of === 'drill',
        title:
          kind === SET_UP
            ? strangersTitle
            : of === 'drill'
              ? drillTitles[id as DrillKind]
              : causeOf(id as CauseId).title,
        // The name of a fault that is to be found again would give it away before it is.
        score: `${good} of ${seen}, last ${last}`,
        due: days <= 0 ? 'due' : days === 1 ? 'tomorrow' : `in ${days} days`,
      }
    }),
)
const weakest = computed(() => rows.value[0] ?? null)
const due = computed(() => rows.value.filter((row) => row.due === 'due').length)
</script>

<template>
  <section aria-labelledby="today-title" data-today>
    <h2 id="today-title" class="border-b border-ink pb-0.5">Today</h2>
    <p class="mt-1.5">
      <span class="figure" data-minutes>{{ formatDecimal(minutes, 1) }}</span> of 5 minutes<template v-if="due > 0"
        >; {{ due }} due again</template
      ><template v-if="part >= 1">. Enough for today; continue if you like.</template>
    </p>
    <span
      class="mt-1 block h-1.5 border-b border-rule"
      role="img"
      :aria-label="`${formatDecimal(minutes, 1)} of 5 minutes`"
      ><span class="block h-full bg-body" :style="{ width: `${100 * part}%` }"></span
    ></span>
    <p class="mt-3">
      Grade
      <SelectInput
        :value="trainer.grade"
        label="Grade"
        :options="options"
        :commit="
          (value) => {
            trainer.choose(value)
            return null
          }
        "
      />
    </p>
    <p v-if="isBusy" class="mt-2 flex flex-wrap gap-2">
      <button type="button" class="push-main" @click="trainer.begin()">Next exercise</button>
    </p>
    <p v-if="weakest" class="mt-2" data-weakest>Weakest so far: {{ weakest.title }}, {{ weakest.score }}.</p>
    <AsideNotice :items="trainer.aside" of="progress" />
    <p v-if="trainer.trouble" role="alert" class="mt-2 border-l-3 border-ceiling pl-2">{{ trainer.trouble }}</p>
    <h3 v-if="isBusy" class="mt-4">Estimate</h3>
    <ul v-if="isBusy" class="mt-0.5 space-y-1">
      <li v-for="kind in drillKinds" :key="kind">
        <button
          type="button"
          class="w-full text-left text-change underline"
          :data-drill="kind"
          @click="trainer.drill(kind)"
        >
          {{ drillTitles[kind] }}
        </button>
      </li>
      <li>
        <button type="button" class="w-full text-left text-change underline" data-set-up @click="trainer.setUp">
          {{ strangersTitle }}
        </button>
      </li>
    </ul>
  </section>
  <section v-if="rows.length > 0" aria-labelledby="progress-title" class="mt-4" data-progress-list>
    <h2 id="progress-title" class="border-b border-ink pb-0.5">Progress</h2>
    <table class="mt-1 w-full">
      <thead class="sr-only">
        <tr>
          <th>Kind</th>
          <th>Next review</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.kind" class="align-baseline">
          <td class="py-0.5 pr-2">
            {{ row.title }}<br /><span class="text-xs text-muted">{{ row.score }}</span>
          </td>
          <td class="py-0.5 text-right text-muted">{{ row.due }}</td>
        </tr>
      </tbody>
    </table>
    <p class="mt-2"><button type="button" class="action" @click="trainer.forget">Reset progress</button></p>
  </section>
</template>
