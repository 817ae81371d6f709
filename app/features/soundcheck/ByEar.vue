<script setup lang="ts">
import { computed, ref, shallowRef, toRaw } from 'vue'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { asChange } from '#core/plan/as-change'
import { BY_EAR } from '#core/render/to-ears'
import type { NumberField } from '#core/model'
import type { Session } from '#core/session'
import { applySettings } from '#core/edits'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useInTurn } from '~/composables/use-in-turn'
import { marksOf } from '~/composables/use-log'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The strip’s floor against its programme by ear: as it stands, and as it stood or would stand. */
const store = useSessionStore()
const view = useViewStore()
const log = useLogStore()
const ear = useInTurn()

const before = shallowRef<Session | null>(store.committed)
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
  return log.open(against.value)?.session ?? null
}
/** A session’s state of this strip, where it has one. */
function stateOf(session: Session | null) {
  const strip = view.strip?.id ?? ''
  const at = session?.strips.findIndex(({ id }) => id === strip) ?? -1
  if (!session || at < 0) return null
  // What is open is evaluated already.
  const evaluation = session === store.session ? store.evaluation : evaluateSession(session)
  return { session, strip, snr: evaluation?.strips[at]?.points.at(-1)?.snr ?? null }
}
const now = computed(() => stateOf(store.committed))
const other = computed(() => stateOf(otherSession()))
const LEVEL: NumberField = {
  label: 'Level',
  unit: 'dBFS',
  min: -60,
  max: BY_EAR.most,
  help: 'Average of the programme as it is played.',
}
const RAISED = [0, 20, 40].map((value) => ({ value, text: value === 0 ? 'as it is' : `${value} dB up` }))
const over = (snr: number | null) => (snr === null ? 'noise not known' : `${formatDecimal(snr, 1)} dB over its floor`)
/** Programme, then its pause, s. */
const [PROGRAMME, PAUSE] = [3, 3]
function hear() {
  const states = [other.value, now.value].filter((each) => each !== null)
  void ear.hear(
    () =>
      states.map(({ session, strip }) => ({
        from: { session: toRaw(session), strip },
        seconds: PROGRAMME,
        pauseSeconds: PAUSE,
        pauseRaised: raised.value,
      })),
    level.value,
  )
}
const playingWords = computed(() => {
  if (ear.making.value) return 'Being made…'
  if (ear.playing.value === null) return ''
  return ear.playing.value === 0 && other.value
    ? 'Before: programme, then its pause…'
    : 'Now: programme, then its pause…'
})
</script>

<template>
  <section v-if="now" aria-labelledby="ear-title" class="mt-5" data-by-ear>
    <h2 id="ear-title" class="border-b border-ink pb-0.5">Listen</h2>
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
      <button v-if="ear.playing.value === null && !ear.making.value" type="button" class="push" @click="hear">
        Compare before and after
      </button>
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
        >pause
        <SelectInput
          :value="raised"
          label="Pause"
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
      A simulated performer through the strip as set. Headphones down first: it starts at −30 dBFS and fades in. Turn up
      slowly. Loud listening harms hearing.
    </p>
  </section>
</template>
