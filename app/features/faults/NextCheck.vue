<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Asked } from '#core/diagnosis/diagnose'
import type { CheckId } from '#core/diagnosis/checks'
import { checkOf } from '#core/diagnosis/checks'
import { formatShort } from '#core/units'
import { useFaultsStore } from './faults-store'

/** What to check next, with its outcomes; what was checked, and what else could be. */
const faults = useFaultsStore()
const wanted = ref<CheckId | null>(null)
const open = computed<Asked[]>(() => {
  const { next, others } = faults.diagnosis ?? { next: null, others: [] }
  return next ? [next, ...others] : []
})
const asked = computed(() => open.value.find(({ check }) => check === wanted.value) ?? open.value[0] ?? null)
const rest = computed(() => open.value.filter(({ check }) => check !== asked.value?.check).slice(0, 8))
const done = computed(() => Object.entries(faults.search.answers) as [CheckId, string][])
const minutes = (value: number) => (value < 1 ? `${formatShort(60 * value, 0)} s` : `${formatShort(value, 1)} min`)
function answer(check: CheckId, outcome: string) {
  wanted.value = null
  faults.answer(check, outcome)
}
/** The question alone, for a list. */
const short = (ask: string) => (ask.length > 90 ? `${ask.slice(0, ask.lastIndexOf(' ', 88))}…` : ask)
</script>

<template>
  <section aria-labelledby="check-title" data-next-check>
    <h2 id="check-title" class="flex items-baseline justify-between border-b border-ink pb-0.5">
      Check next
      <span v-if="asked" class="text-xs font-normal text-muted">{{ minutes(asked.minutes) }}</span>
    </h2>
    <p v-if="faults.search.symptoms.length === 0" class="mt-1 text-muted">
      Choose what you hear. The most useful check for its time then appears here.
    </p>
    <p v-else-if="!asked && faults.diagnosis" class="mt-1">No check left would change the order.</p>
    <div v-if="asked" class="mt-2" :data-check="asked.check">
      <p class="text-[15px] leading-snug">{{ asked.ask }}</p>
      <p v-if="asked.caution" class="mt-1.5 border-l-3 border-ceiling pl-2" data-caution>{{ asked.caution }}</p>
      <div class="mt-2 flex flex-col items-stretch gap-1.5" role="group" aria-label="What it shows">
        <button
          v-for="(words, outcome) in asked.outcomes"
          :key="outcome"
          type="button"
          class="push justify-start text-left"
          :data-outcome="outcome"
          @click="answer(asked.check, String(outcome))"
        >
          {{ words }}
        </button>
      </div>
    </div>
    <details v-if="rest.length > 0" class="mt-3">
      <summary class="cursor-pointer text-muted">Another check</summary>
      <ul class="mt-1 space-y-1">
        <li v-for="each in rest" :key="each.check">
          <button type="button" class="text-left hover:text-change" @click="wanted = each.check">
            {{ short(each.ask) }} <span class="text-muted">{{ minutes(each.minutes) }}</span>
          </button>
        </li>
      </ul>
    </details>
    <div v-if="done.length > 0" class="mt-3" data-answers>
      <h3>Checked</h3>
      <ul class="mt-0.5 space-y-1">
        <li v-for="[check, outcome] in done" :key="check" class="flex items-baseline justify-between gap-3">
          <span
            ><span class="text-muted">{{ short(checkOf(check).ask) }}</span>
            {{ checkOf(check).outcomes[outcome] }}</span
          >
          <button type="button" class="shrink-0 text-change underline" @click="faults.takeBack(check)">
            Take back
          </button>
        </li>
      </ul>
    </div>
  </section>
</template>
