<script setup lang="ts">
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import { lateComponent } from '~/shared/ui/late-component'
import { useShortcuts } from '~/composables/use-shortcuts'
import type { SoundcheckPage } from '~/stores/soundcheck'
import { useSoundcheckStore } from '~/stores/soundcheck'
import StepByStep from './StepByStep.vue'

const AllInputs = lateComponent(() => import('./AllInputs.vue'))

/** The soundcheck: step by step with one input, or all inputs at once. */
const state = useSoundcheckStore()
const PAGES: { value: SoundcheckPage; text: string }[] = [
  { value: 'steps', text: 'Run sheet' },
  { value: 'inputs', text: 'All inputs' },
]
useShortcuts([
  {
    keys: ['L'],
    does: 'All inputs, or the run sheet',
    at: 'Soundcheck',
    run: () => {
      state.page = state.page === 'steps' ? 'inputs' : 'steps'
    },
  },
])
</script>

<template>
  <div class="flex min-h-0 grow flex-col">
    <p class="px-3 pt-2 card:px-5">
      <ChoiceBar
        :options="PAGES"
        :chosen="state.page"
        label="What the soundcheck shows"
        @choose="(page) => (state.page = page)"
      />
    </p>
    <StepByStep v-if="state.page === 'steps'" />
    <AllInputs v-else />
  </div>
</template>
