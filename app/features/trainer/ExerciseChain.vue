<script setup lang="ts">
import { computed } from 'vue'
import { hearingOf } from '#core/trainer/planted/sound'
import { complaintOf, viewOf } from '#core/trainer/exercise'
import { LOUDNESS, aroundWords, captionOf } from '#core/trainer/words'
import { useInTurn } from '~/composables/use-in-turn'
import { useShortcuts } from '~/composables/use-shortcuts'
import type { Running } from './trainer-store'
import { useTrainerStore } from './trainer-store'
import ChainTable from './ChainTable.vue'

/** The faulty chain: what is complained of, its section, its figures and knobs, and how it sounds. */
const props = defineProps<{ running: Running }>()
const trainer = useTrainerStore()
const ear = useInTurn()
const view = computed(() => viewOf(props.running.session, props.running.exercise.strip))
/** What is still wrong with it. */
const fault = computed(() => props.running.exercise.faults.find(({ cause }) => !props.running.fixed.includes(cause)))
const hidden = computed(() => (fault.value?.hidden ? fault.value.cause : null))
const hearing = computed(() =>
  hearingOf(view.value, hidden.value, fault.value?.symptom ?? null, props.running.exercise.seed),
)
const caption = computed(() => captionOf(hearing.value, view.value))
const around = computed(() => aroundWords(view.value))
const atRest = () => !document.activeElement?.matches('button, a, summary, [role="switch"]')
function listen() {
  if (ear.playing.value !== null || ear.making.value) ear.stop()
  else void ear.hear(() => [hearing.value])
}
useShortcuts([{ keys: [' '], does: 'Listen, or stop', at: 'Trainer', when: atRest, run: listen }])
</script>

<template>
  <section aria-labelledby="chain-title" data-exercise>
    <h2 id="chain-title" class="flex items-baseline justify-between gap-3 border-b border-ink pb-0.5">
      {{ running.exercise.title }}
      <span class="text-xs font-normal text-muted">grade {{ running.exercise.grade }}</span>
    </h2>
    <p class="mt-2 text-[15px] leading-snug font-semibold" data-complaint>{{ complaintOf(running.exercise) }}</p>
    <ChainTable :view="view" @turn="trainer.turn" />
    <ul class="mt-2 space-y-0.5 text-muted" data-around>
      <li v-for="each in around" :key="each">{{ each }}</li>
    </ul>
    <div class="mt-3 flex flex-wrap items-center gap-3">
      <button type="button" class="push" data-listen @click="listen">
        {{ ear.playing.value !== null || ear.making.value ? 'Stop' : 'Listen' }}
      </button>
      <span role="status" class="text-muted">{{
        ear.making.value ? 'Being made…' : ear.playing.value !== null ? 'Playing…' : ''
      }}</span>
    </div>
    <details class="mt-1.5" data-caption>
      <summary class="cursor-pointer text-muted">What is heard, in words</summary>
      <p class="mt-0.5">{{ caption }}</p>
    </details>
    <p v-if="ear.trouble.value" role="alert" class="mt-1 text-ceiling">{{ ear.trouble.value }}</p>
    <p class="mt-1.5 text-xs text-muted">{{ LOUDNESS }}</p>
  </section>
</template>
