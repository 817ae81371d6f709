<script setup lang="ts">
import { computed } from 'vue'
import { surgeUncertainty, windowOf } from '#core/uncertainty/window'
import type { ConventionId, Target } from '#core/model'
import { DEFAULT_CONVENTION, conventionIds, conventions, customTarget, riskField, targetOf } from '#core/model'
import { formatDecimal } from '#core/units'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useStripStages } from '~/composables/use-strip-stages'
import PlanPanel from './PlanPanel.vue'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Where the level is to lie: a convention or one’s own window, who uses it and why; and the settings for it. */
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()
const { stages } = useStripStages()

const OWN = 'own' as const
const target = computed<Target>(() => store.session?.target ?? DEFAULT_CONVENTION)
const convention = computed(() => (typeof target.value === 'string' ? conventions[target.value] : null))
const own = computed(() => (typeof target.value === 'string' || 'risk' in target.value ? null : target.value))
/** How well the peak with the surge is known; only a target by risk asks. */
const give = computed(() =>
  store.session && view.strip && risk.value !== null ? surgeUncertainty(store.session, view.strip) : 0,
)
const risk = computed(() => {
  const chosen = targetOf(target.value)
  return 'risk' in chosen ? chosen.risk : null
})
const window = computed(() => (store.session && view.strip ? windowOf(store.session, view.strip, stages.value) : null))
type Option = ConventionId | typeof OWN
const chosen = computed<Option>(() =>
  typeof target.value === 'string' ? target.value : 'risk' in target.value ? 'by-risk' : OWN,
)
const options: { value: Option; text: string }[] = [
  ...conventionIds.map((id) => ({ value: id, text: conventions[id].name })),
  { value: OWN, text: 'A window of your own' },
]
const reads = [
  { value: 'peak', text: 'loudest peaks' },
  { value: 'average', text: 'average' },
] as const
const edge = { unit: 'dBFS', min: -60, max: 0, help: 'At the converter: the level of a sine’s peak.' } as const

function choose(value: Option) {
  const now = window.value
  const next: Target =
    value === OWN
      ? customTarget.parse({
          low: Math.max(-60, Math.round(now?.low ?? -18)),
          high: Math.min(0, Math.round(now?.high ?? -12)),
          reads: now?.reads === 'average' ? 'average' : 'peak',
        })
      : value
  return edit.session('Target', (session) => ({ ...session, target: next }))
}
const setOwn = (part: Partial<NonNullable<typeof own.value>>) =>
  edit.session('Target window', (session) => (own.value ? { ...session, target: { ...own.value, ...part } } : session))
const setRisk = (value: number | undefined) =>
  value === undefined ? null : edit.session('Risk', (session) => ({ ...session, target: { risk: value } }))
</script>

<template>
  <section aria-labelledby="target-title">
    <h2 id="target-title" class="border-b border-ink pb-0.5">Target</h2>
    <SelectInput
      class="mt-1.5 w-full font-semibold"
      label="Target level"
      :value="chosen"
      :options="options"
      :commit="choose"
    />
    <details v-if="convention" class="mt-0.5 text-muted">
      <summary class="cursor-pointer">{{ convention.users }}</summary>
      <p>
        {{ convention.why }} (Common practice.) dBFS is the level of a sine’s peak (AES17): a peak reads 3.01 dB under
        average plus crest factor.
        <button type="button" class="action" @click="view.reading = 'conventions'">Compare all</button>
      </p>
    </details>
    <p v-if="risk !== null && window" class="mt-1">
      At most <NumberInput :value="risk" :field="riskField" :step="0.5" :commit="setRisk" /> risk of clipping: the peak
      with the surge at <span class="figure">{{ formatDecimal(window.aim, 1) }}</span> dBFS. It depends on how well that
      peak is known, <span class="figure" data-risk-give>± {{ formatDecimal(2 * give, 1) }}</span> dB: a smaller ±
      allows more gain.
    </p>
    <div v-else-if="own" class="mt-1 flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <span
        >from
        <NumberInput :value="own.low" :field="{ ...edge, label: 'Lower edge' }" :commit="(low) => setOwn({ low })"
      /></span>
      <span
        >to
        <NumberInput :value="own.high" :field="{ ...edge, label: 'Upper edge' }" :commit="(high) => setOwn({ high })"
      /></span>
      <span
        >read as
        <SelectInput :value="own.reads" label="Read as" :options="reads" :commit="(value) => setOwn({ reads: value })"
      /></span>
    </div>
    <PlanPanel />
  </section>
</template>
