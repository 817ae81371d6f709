<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AnsweredTrial, TrialAnswer, TrialPreference } from '#core/latency/guided-trial'
import { guidedTrial } from '#core/latency/guided-trial'
import { useSystemEdit } from '~/composables/use-system-edit'
import { useSessionStore } from '~/stores/session'
import { useTimingStore } from '~/stores/timing'

/** Try this, listen, say what it was: finds the buffer in the fewest tries, and logs them. */
const store = useSessionStore()
const timing = useTimingStore()
const edit = useSystemEdit()

const preference = ref<TrialPreference | null>(null)
const answers = ref<AnsweredTrial[]>([])
const state = computed(() =>
  preference.value ? guidedTrial(timing.axes.buffers, answers.value, preference.value) : null,
)
const WORDS: Record<TrialAnswer, string> = { crackles: 'It crackles', late: 'It feels late', fine: 'It is fine' }

function begin(which: TrialPreference) {
  preference.value = which
  answers.value = []
}
function answer(given: TrialAnswer) {
  const now = state.value
  if (now?.state !== 'try' || !store.session) return
  edit.add(`Trial: ${WORDS[given].toLowerCase()}`, 'trials', {
    sampleRate: store.session.system.sampleRate,
    bufferFrames: now.bufferFrames,
    minutes: 1,
    dropouts: given === 'crackles' ? 1 : 0,
    note: WORDS[given].toLowerCase(),
  })
  answers.value = [...answers.value, { bufferFrames: now.bufferFrames, answer: given }]
}
function adopt(bufferFrames: number) {
  edit.system('Buffer found by trial', { bufferFrames: bufferFrames })
  preference.value = null
}
</script>

<template>
  <section aria-labelledby="trial-title" data-trial>
    <h2 id="trial-title" class="border-b border-ink pb-0.5">Guided trial</h2>
    <template v-if="!preference">
      <p class="mt-1 text-muted">Two ways to choose, each in three or four answers:</p>
      <p class="mt-1 flex flex-wrap gap-2">
        <button type="button" class="push" @click="begin('smallest')">Smallest stable buffer</button
        ><button type="button" class="push" @click="begin('largest')">Largest buffer you cannot feel</button>
      </p>
    </template>
    <template v-else-if="state?.state === 'try'">
      <p class="mt-1">
        Set <strong class="figure">{{ state.bufferFrames }}</strong> frames{{
          state.again ? ' once more: that answer goes against an earlier one' : ''
        }}, play along for a minute, and say:
      </p>
      <p class="mt-1 flex flex-wrap gap-2">
        <button v-for="(words, key) in WORDS" :key="key" type="button" class="push" @click="answer(key)">
          {{ words }}
        </button>
      </p>
    </template>
    <p v-else-if="state?.state === 'found'" class="mt-1">
      Found in {{ state.tries }} answers: <strong class="figure">{{ state.bufferFrames }}</strong> frames.
      <button type="button" class="action" @click="adopt(state.bufferFrames)">Set it</button>
    </p>
    <p v-else class="mt-1">
      Every buffer without crackles is too late. Use direct monitoring, or reduce the load and try again.
    </p>
    <button v-if="preference" type="button" class="action mt-1" @click="preference = null">Stop the trial</button>
  </section>
</template>
