<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Target } from '#core/session'
import { customTarget, schoolIds, schools, targetWindow } from '#core/session'
import { formatDecimal, formatShort } from '#core/units'
import NumberInput from '~/components/fields/NumberInput.vue'
import SelectInput from '~/components/fields/SelectInput.vue'
import { usePlanGesture } from '~/composables/use-plan-gesture'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Where the level is to lie: a school or one’s own window, who uses it and why; and the settings for it. */
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()
const plan = usePlanGesture()

const OWN = 'own' as const
const target = computed<Target>(() => store.session?.target ?? 'peaks-18-12')
const school = computed(() => (typeof target.value === 'string' ? schools[target.value] : null))
const own = computed(() => (typeof target.value === 'string' ? null : target.value))
const options = [
  ...schoolIds.map((id) => ({ value: id as (typeof schoolIds)[number] | typeof OWN, text: schools[id].name })),
  { value: OWN, text: 'A window of your own' },
]
const reads = [
  { value: 'peak', text: 'loudest peaks' },
  { value: 'average', text: 'average' },
] as const
const edge = { unit: 'dBFS', min: -60, max: 0, help: 'At the recorder.' } as const

function choose(value: (typeof options)[number]['value']) {
  const { low, high, reads: read } = targetWindow(target.value)
  const next: Target =
    value === OWN ? customTarget.parse({ low, high, reads: read === 'average' ? 'average' : 'peak' }) : value
  return edit.session('Target', (session) => ({ ...session, target: next }))
}
const setOwn = (part: Partial<NonNullable<typeof own.value>>) =>
  edit.session('Target window', (session) => ({ ...session, target: { ...own.value, ...part } as Target }))
const stripPlan = computed(() => store.plan?.strips.find((each) => each.strip === view.strip?.id) ?? null)
const applyRemedy = () => edit.changes('Mend the chain', stripPlan.value?.remedy?.changes ?? [])
const showAll = ref(false)
const told = computed(() => plan.applied.value?.settings ?? [])
</script>

<template>
  <section aria-labelledby="target-title">
    <h2 id="target-title" class="border-b border-ink pb-0.5">Target</h2>
    <SelectInput
      class="mt-1.5 w-full font-semibold"
      label="Target level"
      :value="typeof target === 'string' ? target : OWN"
      :options="options"
      :commit="choose"
    />
    <p v-if="school" class="mt-1 text-muted">
      <span class="text-ink">{{ school.users }}.</span> {{ school.why }}
      <span class="whitespace-nowrap">(Common practice.)</span>
      <button type="button" class="action" @click="view.reading = 'schools'">Compare all</button>
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
    <div class="mt-1.5 flex items-center gap-3">
      <button type="button" class="push-main" @click="plan.apply">Set for me</button>
      <span v-if="store.plan?.settings.length === 0" class="text-muted">Set as the target wants.</span>
      <span v-else class="text-muted">{{ store.plan?.settings.length }} to change</span>
    </div>
    <p v-if="stripPlan?.hiss && stripPlan.hiss.lower > 0.05" class="mt-1 text-muted" data-hiss>
      Planned front to back: hiss <span class="figure text-ink">{{ formatDecimal(stripPlan.hiss.lower, 1) }}</span> dB
      lower than with all gain at the last stage.
    </p>
    <p v-if="stripPlan?.remedy" class="plate mt-1.5 border-l-4 border-l-ceiling px-2 py-1" data-remedy>
      {{ stripPlan.remedy.message }} <button type="button" class="action" @click="applyRemedy">Do it</button>
    </p>
    <div v-if="plan.applied.value" class="plate mt-2 border-change p-2" role="status" data-plan>
      <template v-if="told.length > 0">
        <p class="flex justify-between font-semibold">
          Set for you <button type="button" class="action font-normal" @click="plan.takeBack">take back</button>
        </p>
        <ul>
          <li v-for="setting in showAll ? told : told.slice(0, 3)" :key="setting.stage + setting.setting" class="mt-1">
            {{ setting.stripName }}: {{ setting.setting
            }}<template v-if="setting.several"> of {{ setting.gearName }}</template>
            <span class="figure">{{ formatShort(setting.from, 1) }} → {{ formatShort(setting.to, 1) }} dB</span>.
            <span class="text-muted">{{ setting.reason }}</span>
          </li>
        </ul>
        <button v-if="told.length > 3 && !showAll" type="button" class="action mr-3" @click="showAll = true">
          {{ told.length - 3 }} more
        </button>
      </template>
      <p v-else>
        Nothing to change: every strip is set as near to {{ formatDecimal(targetWindow(target).aim, 1) }} dBFS as its
        gain allows.
      </p>
      <button type="button" class="action mt-1" @click="plan.dismiss">Close</button>
    </div>
  </section>
</template>
