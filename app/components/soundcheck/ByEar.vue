<script setup lang="ts">
import { computed, ref } from 'vue'
import type { StripEvaluation } from '#core/evaluation/evaluate-session'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { asChange } from '#core/plan/as-change'
import { BY_EAR } from '#core/render/floor-by-ear'
import type { NumberField, Session } from '#core/session'
import { applySettings } from '#core/session'
import { formatDecimal } from '#core/units'
import NumberInput from '~/components/fields/NumberInput.vue'
import SelectInput from '~/components/fields/SelectInput.vue'
import { useByEar } from '~/composables/use-by-ear'
import { marksOf } from '~/composables/use-log'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The strip’s floor against its programme by ear: as it stands, and as it stood or would stand. */
const store = useSessionStore()
const view = useViewStore()
const log = useLogStore()
const ear = useByEar()

const before = ref<Session | null>(store.committed)
const against = ref('came')
const level = ref<number>(BY_EAR.starts)
const raised = ref(0)

const others = computed(() => [
  { value: 'came', text: 'as it was when you came here' },
  { value: 'planned', text: 'as planned' },
  ...marksOf(log.log)
    .slice(0, 12)
    .map(({ id, name }) => ({ value: id, text: `mark “${name}”` })),
])
function otherSession(): Session | null {
  if (against.value === 'came') return before.value
  if (against.value === 'planned')
    return store.committed && store.plan ? applySettings(store.committed, store.plan.settings.map(asChange)) : null
  return log.log.marks.find(({ id }) => id === against.value)?.session ?? null
}
const stateOf = (strip: StripEvaluation | undefined) => {
  const end = strip?.points.at(-1)
  return end ? { average: end.average, peak: end.peak, noise: end.noise, snr: end.snr } : null
}
const now = computed(() => stateOf(view.evaluated ?? undefined))
const other = computed(() => {
  const session = otherSession()
  const at = session?.strips.findIndex(({ id }) => id === view.strip?.id) ?? -1
  return session && at >= 0 ? stateOf(evaluateSession(session).strips[at]) : null
})
const LEVEL: NumberField = {
  label: 'Level',
  unit: 'dBFS',
  min: -60,
  max: BY_EAR.most,
  help: 'Average of the programme as it is played.',
}
const RAISED = [0, 20, 40].map((value) => ({ value, text: value === 0 ? 'as it is' : `${value} dB up` }))
const over = (snr: number | null) => (snr === null ? 'no noise is known' : `${formatDecimal(snr, 1)} dB over its floor`)
function hear() {
  const states = [other.value, now.value].filter((each) => each !== null)
  void ear.hear(states, level.value, raised.value)
}
const playingWords = computed(() => {
  if (ear.playing.value === null) return ''
  return ear.playing.value === 0 && other.value
    ? 'Before: programme, then its pause…'
    : 'Now: programme, then its pause…'
})
</script>

<template>
  <section v-if="now" aria-labelledby="ear-title" class="mt-5" data-by-ear>
    <h2 id="ear-title" class="border-b border-ink pb-0.5">By ear</h2>
    <p class="mt-1 flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <span>{{ view.strip?.name }}: {{ over(now.snr) }}, against</span>
      <SelectInput
        :value="against"
        label="Against"
        :options="others"
        :commit="
          (value) => {
            against = value
            return null
          }
        "
      />
      <span v-if="other" class="text-muted">{{ over(other.snr) }}</span>
    </p>
    <p class="mt-1 flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <button v-if="ear.playing.value === null" type="button" class="push" @click="hear">Hear before and now</button>
      <button v-else type="button" class="push" @click="ear.stop">Stop</button>
      <span
        >at
        <NumberInput
          :value="level"
          :field="LEVEL"
          :commit="
            (value) => {
              level = value ?? BY_EAR.starts
              return null
            }
          "
      /></span>
      <span
        >noise
        <SelectInput
          :value="raised"
          label="Noise"
          :options="RAISED"
          :commit="
            (value) => {
              raised = value
              return null
            }
          "
      /></span>
      <span role="status">{{ playingWords }}</span>
    </p>
    <p v-if="ear.trouble.value" role="alert" class="mt-1 text-ceiling">{{ ear.trouble.value }}</p>
    <p class="mt-1 text-xs text-muted">
      A made-up voice at the strip’s levels. Headphones down first: it starts at −30 dBFS and fades in; turn up slowly.
      Loud listening harms hearing.
    </p>
  </section>
</template>
