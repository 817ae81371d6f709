<script setup lang="ts">
import { formatDecimal } from '#core/units'
import type { Step } from '#core/soundcheck/step'
import SlideRule from '~/shared/fields/SlideRule.vue'
import TypedReading from './TypedReading.vue'

/** The step in hand: what to do, how, with which caution, and what must be read. */
defineProps<{ step: Step; number: number }>()
const emit = defineEmits<{ tick: [] }>()
const level = (value: number) => formatDecimal(value, 1)
</script>

<template>
  <div class="my-1 border-2 border-change bg-sheet px-2.5 py-2" data-step-card>
    <p class="font-semibold">
      <span class="figure">{{ number }}</span> {{ step.title }}
      <span v-if="step.state === 'again'" class="font-normal text-ceiling">to do again</span>
    </p>
    <SlideRule
      v-if="step.set"
      class="mt-1"
      :value="step.set.value"
      :range="step.set.range"
      :wanted="step.set.planned"
    />
    <p v-if="step.caution" class="mt-1 border-l-3 border-ceiling pl-2" data-caution>{{ step.caution }}</p>
    <p v-if="step.detail" class="mt-1 text-muted">{{ step.detail }}</p>
    <p v-if="step.read" class="mt-1">
      At {{ step.read.meter }} it must read
      <strong class="figure whitespace-nowrap"
        >{{ level(step.read.low) }} … {{ level(step.read.high) }} {{ step.read.unit }}</strong
      >{{ step.read.reads === 'peak' ? ', sample peak' : step.read.reads === 'average' ? ', average' : '' }}.
    </p>
    <TypedReading
      v-if="step.strip && step.stage && step.group !== 'plugs' && step.group !== 'types'"
      :key="step.id"
      :step="step"
    />
    <p class="mt-1.5 flex flex-wrap items-center gap-2">
      <button type="button" class="push" data-tick @click="emit('tick')">
        {{ step.state === 'done' ? 'Take the tick back' : step.id === 'recall.mark' ? 'Make the mark' : 'Done' }}
      </button>
      <span class="text-xs text-muted">Enter</span>
    </p>
  </div>
</template>
