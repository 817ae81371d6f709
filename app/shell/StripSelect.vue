<script setup lang="ts">
import { computed } from 'vue'
import { formatDecimal } from '#core/units'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The strip that is shown, and all the others in a menu with their headroom and what needs attention. */
const store = useSessionStore()
const view = useViewStore()

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
  <SelectInput v-if="view.strip" :value="view.strip.id" label="Strip" :options="options" :commit="choose" />
</template>
