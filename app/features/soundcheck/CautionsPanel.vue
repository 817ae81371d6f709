<script setup lang="ts">
import { computed } from 'vue'
import type { Step } from '#core/soundcheck/step'
import { useSoundcheckStore } from '~/stores/soundcheck'

const state = useSoundcheckStore()

/** What may hurt somebody or something, as long as its step is not done. */
const cautions = computed(() => {
  const number = (step: Step) => state.steps.findIndex(({ id }) => id === step.id) + 1
  const first = (wanted: Step['group']) =>
    state.steps.find((each) => each.group === wanted && each.state !== 'done' && each.caution)
  const [phantom, headphones, speakers] = [first('phantom'), first('headphones'), first('loudspeakers')]
  return [
    ...(phantom ? [`48 V at step ${number(phantom)}: outputs muted, plug first, then switch, and wait.`] : []),
    ...(headphones ? [`Headphones stay down until step ${number(headphones)}.`] : []),
    ...(speakers ? [`Loudspeakers stay off until step ${number(speakers)}: on last, off first.`] : []),
  ]
})
</script>

<template>
  <section aria-labelledby="cautions-title">
    <h2 id="cautions-title" class="border-b border-ink pb-0.5">Cautions</h2>
    <p v-for="each in cautions" :key="each" class="mt-1">{{ each }}</p>
    <p v-if="cautions.length === 0" class="mt-1 text-muted">All steps with a caution are done.</p>
  </section>
</template>
