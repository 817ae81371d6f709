<script setup lang="ts">
import { computed, ref } from 'vue'
import { moveText } from '#core/cable-run/move-text'
import type { Answer, Move } from '#core/cable-run/hand'
import { fields } from '#core/model'
import NumberInput from '~/shared/fields/NumberInput.vue'

/** What the run asks of a hand, large, with its answer. */
const props = defineProps<{ move: Move; input: string; nameOf: (channel: number) => string; simulated: boolean }>()
const emit = defineEmits<{ answer: [answer: Answer]; make: [] }>()
const text = computed(() => moveText(props.move, props.input, props.nameOf))
const volts = ref<number | undefined>()
const refusal = ref<string | null>(null)
const { voltage } = fields({
  voltage: {
    label: 'Voltage',
    unit: 'V',
    min: 0.00001,
    max: 60,
    optional: true,
    help: 'As the multimeter shows it, AC.',
  },
})

function done() {
  if (props.move.do !== 'meter') return emit('answer', { done: true })
  refusal.value = volts.value === undefined ? 'Enter the voltage in V, or leave it out.' : null
  if (volts.value !== undefined) emit('answer', { done: true, value: volts.value })
}
const take = (value: number | undefined) => {
  volts.value = value
  return null
}
</script>

<template>
  <section class="plate mt-2 border-l-3! border-l-change! px-3 py-2" aria-live="polite" :data-move="move.do">
    <h3 class="text-lg/snug">{{ text.title }}</h3>
    <p class="mt-0.5">{{ text.detail }}</p>
    <p class="mt-2 flex flex-wrap items-baseline gap-3">
      <button v-if="simulated" type="button" class="push-main" data-make @click="emit('make')">
        Do it on the simulated interface
      </button>
      <template v-else>
        <label v-if="move.do === 'meter'">Voltage <NumberInput :value="volts" :field="voltage" :commit="take" /></label>
        <button v-if="move.do !== 'gain'" type="button" class="push-main" data-done @click="done">Done</button>
      </template>
      <button type="button" class="push" data-leave-out @click="emit('answer', { done: false })">Leave it out</button>
    </p>
    <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
  </section>
</template>
