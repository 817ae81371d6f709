<script setup lang="ts">
import { ChevronLeft, ChevronRight, Plus } from '@lucide/vue'
import { computed } from 'vue'
import { formatDecimal } from '#core/units'
import SelectInput from '~/components/fields/SelectInput.vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The strips where there is no room for their list: the one shown, the ones beside it, all in a menu. */
const store = useSessionStore()
const view = useViewStore()
const chain = useChainEdit()

const WORDS = { stop: ', stop', caution: ', needs attention', note: '' } as const
const options = computed(() =>
  (store.session?.strips ?? []).map((strip, i) => {
    const { tightest, findings } = store.evaluation?.strips[i] ?? {}
    const severity = findings?.[0]?.severity
    const headroom = tightest ? ` · ${formatDecimal(tightest.headroom, 1)} dB` : ''
    return { value: strip.id, text: `${strip.name}${headroom}${severity ? WORDS[severity] : ''}` }
  }),
)
function choose(id: string) {
  view.select(id)
  return null
}
</script>

<template>
  <nav v-if="view.strip" class="flex items-center gap-1 border-b border-line px-2 py-1" aria-label="Strips">
    <button type="button" class="icon-button" aria-label="Previous strip" @click="view.step(-1)">
      <ChevronLeft class="size-5" aria-hidden="true" />
    </button>
    <SelectInput
      class="min-w-0 grow font-semibold"
      :value="view.strip.id"
      label="Strip"
      :options="options"
      :commit="choose"
    />
    <button type="button" class="icon-button" aria-label="Next strip" @click="view.step(1)">
      <ChevronRight class="size-5" aria-hidden="true" />
    </button>
    <button type="button" class="icon-button" aria-label="Add a strip" @click="chain.addingStrip.value = true">
      <Plus class="size-5" aria-hidden="true" />
    </button>
  </nav>
</template>
