<script setup lang="ts">
import { computed, ref } from 'vue'
import type { CauseId } from '#core/diagnosis/causes'
import { causeOf } from '#core/diagnosis/causes'
import { checkOf } from '#core/diagnosis/checks'
import { candidates, checksFor, fixChoices } from '#core/trainer/exercise'
import { shortestWay } from '#core/trainer/shortest-way'
import type { Running } from './trainer-store'
import { useTrainerStore } from './trainer-store'
import { symptoms } from '#core/diagnosis/symptom'

/** Checks to make, the cause to name, the fix to choose; then the score and the shortest way. */
const props = defineProps<{ running: Running }>()
const trainer = useTrainerStore()
const exercise = computed(() => props.running.exercise)
const open = computed(() =>
  checksFor(exercise.value).filter((id) => !props.running.checks.some(({ check }) => check === id)),
)
/** The fault that is named but not fixed; then the one that is still to be named. */
const toFix = computed(() => props.running.found.find((cause) => !props.running.fixed.includes(cause)) ?? null)
const at = computed(() => exercise.value.faults.findIndex(({ cause }) => cause === toFix.value))
const unnamed = computed(() => exercise.value.faults.filter(({ cause }) => !props.running.found.includes(cause)))
const causes = computed(() =>
  unnamed.value
    .slice(0, 1)
    .flatMap(({ symptom }) => candidates(symptom))
    .filter((id) => !props.running.wrong.causes.includes(id) && !props.running.found.includes(id))
    .sort((a, b) => causeOf(a).title.localeCompare(causeOf(b).title)),
)
const fixes = computed(() =>
  fixChoices(exercise.value, at.value).filter(({ cause }) => !props.running.wrong.fixes.includes(cause)),
)
const told = ref<string | null>(null)
function name(cause: CauseId) {
  told.value = trainer.name(cause) ? null : `“${causeOf(cause).title}” is not at work here.`
}
function fix(chosen: CauseId) {
  if (!toFix.value) return
  told.value = toFix.value === chosen ? null : 'That would not fix it.'
  trainer.fix(toFix.value, chosen)
}
const ways = computed(() =>
  props.running.score
    ? exercise.value.faults.map(({ cause, symptom }, i) => ({ cause, symptom, ...shortestWay(exercise.value, i) }))
    : [],
)
const made = computed(() => [...props.running.checks].reverse())
</script>

<template>
  <section v-if="running.score" aria-labelledby="score-title" data-score>
    <h2 id="score-title" class="border-b border-ink pb-0.5">
      <span class="figure" data-points>{{ running.score.points }}</span> of 100
    </h2>
    <p v-for="each in running.score.because" :key="each" class="mt-1">{{ each }}</p>
    <p v-if="running.score.because.length === 0" class="mt-1">Shortest solution.</p>
    <div v-for="way in ways" :key="way.cause" class="mt-3" :data-way="way.cause">
      <h3>{{ causeOf(way.cause).title }}</h3>
      <p class="text-muted">Shortest solution from “{{ symptoms[way.symptom].title }}”:</p>
      <ol class="mt-0.5 list-decimal space-y-1 pl-5">
        <li v-for="each in way.checks" :key="each.check">
          {{ each.ask }} <strong>{{ each.shows }}.</strong>
        </li>
        <li v-for="each in way.evidence" :key="each">{{ each }}</li>
        <li>{{ way.fix.says }}</li>
      </ol>
      <p v-if="way.fix.caution" class="mt-1 border-l-3 border-ceiling pl-2">{{ way.fix.caution }}</p>
      <p class="mt-1 text-muted">Then: {{ way.fix.after }}</p>
    </div>
    <p class="mt-3 flex flex-wrap gap-3">
      <button type="button" class="push-main" @click="trainer.begin()">Next exercise</button>
      <button type="button" class="push" @click="trainer.leave">To the overview</button>
    </p>
  </section>
  <template v-else>
    <section aria-labelledby="checks-title" data-make-checks>
      <h2 id="checks-title" class="flex items-baseline justify-between border-b border-ink pb-0.5">
        Check <span class="text-xs font-normal text-muted" data-spent>{{ running.checks.length }} made</span>
      </h2>
      <ul v-if="made.length > 0" class="mt-1 space-y-1" aria-live="polite" data-made>
        <li v-for="{ check, outcome } in made" :key="check" class="border-l-3 border-change pl-2">
          <span class="text-muted">{{ checkOf(check).ask }}</span>
          <strong>{{ checkOf(check).outcomes[outcome] }}.</strong>
        </li>
      </ul>
      <details class="mt-1.5" :open="made.length === 0">
        <summary class="cursor-pointer text-muted">{{ open.length }} available checks</summary>
        <ul class="mt-1 space-y-1">
          <li v-for="id in open" :key="id">
            <button type="button" class="text-left hover:text-change" :data-make="id" @click="trainer.check(id)">
              {{ checkOf(id).ask }}
            </button>
          </li>
        </ul>
      </details>
    </section>
    <section v-if="toFix" aria-labelledby="fix-title" class="mt-5" data-choose-fix>
      <h2 id="fix-title" class="border-b border-ink pb-0.5">Right: {{ causeOf(toFix).title }}</h2>
      <p class="mt-1">How is it fixed?</p>
      <div class="mt-1 flex flex-col gap-1.5">
        <button
          v-for="choice in fixes"
          :key="choice.cause"
          type="button"
          class="push justify-start text-left"
          :data-fix-choice="choice.cause"
          @click="fix(choice.cause)"
        >
          {{ choice.says }}
        </button>
      </div>
    </section>
    <section v-else aria-labelledby="name-title" class="mt-5" data-name-cause>
      <h2 id="name-title" class="border-b border-ink pb-0.5">
        Name the cause<template v-if="exercise.faults.length > 1">, {{ unnamed.length }} left</template>
      </h2>
      <div class="mt-1.5 flex flex-col gap-1">
        <button
          v-for="id in causes"
          :key="id"
          type="button"
          class="push justify-start text-left"
          :data-name="id"
          @click="name(id)"
        >
          {{ causeOf(id).title }}
        </button>
      </div>
    </section>
    <p v-if="told" role="alert" class="mt-2 border-l-3 border-ceiling pl-2" data-told>{{ told }}</p>
    <p class="mt-4 flex flex-wrap gap-4">
      <button type="button" class="action" @click="trainer.show">Show the solution</button>
      <button type="button" class="action" @click="trainer.leave">Leave it</button>
    </p>
  </template>
</template>
