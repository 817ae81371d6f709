<script setup lang="ts">
import { computed, ref } from 'vue'
import { findSymptoms, symptoms, whenIds, whens } from '#core/diagnosis/symptom'
import type { When } from '#core/diagnosis/symptom'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useFaultsStore } from './faults-store'
import { useViewStore } from '~/stores/view'

/** What is complained of, in the words that are used for it; where, and when. */
const faults = useFaultsStore()
const view = useViewStore()
const typed = ref('')
/** On a narrow screen the others fold away once one is chosen. */
const all = ref(false)
const field = ref<HTMLInputElement | null>(null)
const shown = computed(() => findSymptoms(typed.value))
const chosen = (id: (typeof shown.value)[number]) => faults.search.symptoms.includes(id)

const folded = computed(() => !all.value && typed.value.trim() === '' && faults.search.symptoms.length > 0)
const WHERE = computed(() => [
  { value: 'strip', text: view.strip?.name ?? 'this strip' },
  { value: 'all', text: 'all strips' },
])
const WHEN = [
  { value: '', text: 'not known' },
  ...whenIds.map((value) => ({ value: value as string, text: whens[value] as string })),
]
function take() {
  const [first] = shown.value
  if (typed.value.trim() !== '' && first && !chosen(first)) faults.toggle(first)
  typed.value = ''
}
defineExpose({ find: () => field.value?.focus() })
</script>

<template>
  <section aria-labelledby="wrong-title" data-symptoms>
    <h2 id="wrong-title" class="border-b border-ink pb-0.5">What is wrong?</h2>
    <input
      ref="field"
      v-model="typed"
      type="search"
      class="mt-2 w-full border border-rule bg-sheet px-2 py-1"
      placeholder="hiss, feedback, latency…"
      aria-label="Find a symptom"
      autocomplete="off"
      @keydown.enter.prevent="take"
      @keydown.esc.prevent="field?.blur()"
    />
    <ul class="mt-1.5">
      <li v-for="id in shown" :key="id" :class="{ 'max-rail:hidden': folded && !chosen(id) }">
        <button
          type="button"
          class="flex w-full items-baseline gap-2 border-l-3 py-0.5 pr-1 pl-2 text-left hover:text-change"
          :class="chosen(id) ? 'border-change bg-change-soft font-semibold' : 'border-transparent'"
          :aria-pressed="chosen(id)"
          :data-symptom="id"
          @click="faults.toggle(id)"
        >
          <span v-if="chosen(id)" class="figure" aria-hidden="true">×</span>
          {{ symptoms[id].title }}
        </button>
      </li>
    </ul>
    <p v-if="folded" class="mt-1 rail:hidden">
      <button type="button" class="action" @click="all = true">Another symptom too</button>
    </p>
    <p v-if="shown.length === 0" class="mt-1 text-muted">
      No symptom matches. Describe how it sounds, or what is missing.
    </p>
    <dl class="mt-4 grid grid-cols-[auto_minmax(0,1fr)] items-baseline gap-x-3 gap-y-1.5">
      <dt class="text-muted">Where</dt>
      <dd>
        <SelectInput
          :value="faults.search.everywhere ? 'all' : 'strip'"
          label="Where it is heard"
          :options="WHERE"
          :commit="
            (value) => {
              faults.look(value === 'all')
              return null
            }
          "
        />
      </dd>
      <dt class="text-muted">When</dt>
      <dd>
        <SelectInput
          :value="faults.search.when ?? ''"
          label="When it happens"
          :options="WHEN"
          :commit="
            (value) => {
              faults.happens(value === '' ? null : (value as When))
              return null
            }
          "
        />
      </dd>
    </dl>
    <p v-if="faults.search.symptoms.length > 0" class="mt-4">
      <button type="button" class="action" @click="faults.beginAnew">Start over</button>
    </p>
  </section>
</template>
