<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from '#imports'
import { useShortcuts } from '~/composables/use-shortcuts'
import { useFaultsStore } from './faults-store'
import { heardElsewhere } from './heard-elsewhere'
import CauseList from './CauseList.vue'
import HeardPanel from './HeardPanel.vue'
import NextCheck from './NextCheck.vue'
import SymptomPicker from './SymptomPicker.vue'

/** From what is wrong to its cause in this chain, by the check that tells most, to the fix. */
const faults = useFaultsStore()
const [route, router] = [useRoute(), useRouter()]
const heard = heardElsewhere(route.query)
if (heard) {
  faults.begin(heard.symptom, heard.answers)
  // A reload goes on with the search as it is then.
  const { symptom: _, answers: __, ...rest } = route.query
  void router.replace({ query: rest })
}
const picker = ref<{ find: () => void } | null>(null)
useShortcuts([
  { keys: ['C'], does: 'Find a symptom', at: 'Faults', run: () => picker.value?.find() },
  { keys: ['Z'], does: 'Undo the last answer', at: 'Faults', run: faults.takeLastBack },
])
</script>

<template>
  <div
    class="grow gap-x-7 gap-y-4 px-3 pt-2 pb-4 card:px-5 rail:grid rail:min-h-0 rail:grid-cols-[15rem_minmax(0,1fr)] rail:overflow-hidden column:grid-cols-[15.5rem_minmax(0,1fr)_20rem]"
  >
    <div class="min-w-0 rail:min-h-0 rail:overflow-y-auto" tabindex="0" aria-label="What is wrong">
      <SymptomPicker ref="picker" />
    </div>
    <div
      class="min-w-0 max-rail:mt-5 rail:min-h-0 rail:overflow-y-auto column:contents"
      tabindex="0"
      aria-label="Checks and causes"
    >
      <div
        class="min-w-0 space-y-5 max-column:mb-5 column:order-2 column:min-h-0 column:overflow-y-auto"
        :tabindex="0"
        aria-label="Checks"
      >
        <NextCheck />
        <HeardPanel />
      </div>
      <div class="min-w-0 column:order-1 column:min-h-0 column:overflow-y-auto" :tabindex="0" aria-label="Causes">
        <CauseList />
      </div>
    </div>
  </div>
</template>
