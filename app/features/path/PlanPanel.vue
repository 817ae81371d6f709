<script setup lang="ts">
import { computed, ref } from 'vue'
import { formatDecimal, formatShort } from '#core/units'
import type { PlanScope } from '~/composables/use-plan-gesture'
import { usePlanGesture } from '~/composables/use-plan-gesture'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** "Set for me": what it would change, on this strip or on all, before it does; and afterwards what it did. */
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()
const plan = usePlanGesture()

const own = computed(() => store.plan?.strips.find((each) => each.strip === view.strip?.id) ?? null)
const coming = computed(() => plan.settingsFor('strip'))
const everywhere = computed(() => plan.settingsFor('all'))
const several = computed(() => (store.session?.strips.length ?? 0) > 1)
/** The finding about the gain's range says the same: one cause, one voice. */
const remedy = computed(() =>
  view.evaluated?.findings.some(({ code }) => code === 'gain-range-exhausted' || code === 'clips')
    ? null
    : (own.value?.remedy ?? null),
)
const fix = () => edit.changes('Fix the chain', remedy.value?.changes ?? [])
const shown = ref<PlanScope | null>(null)
const told = computed(() => plan.applied.value?.settings ?? [])
const list = computed(() => (shown.value ? plan.settingsFor(shown.value) : told.value))
function toggle(scope: PlanScope) {
  shown.value = shown.value === scope ? null : scope
}
function apply(scope: PlanScope) {
  shown.value = null
  plan.apply(scope)
}

/** Whether the plan reaches the window, in words. */
const state = computed(() => {
  const off = own.value?.off ?? 0
  if (own.value?.gains.length === 0) return 'No gain on this strip can be set.'
  if (Math.abs(off) >= 0.05)
    return `${coming.value.length === 0 ? 'Closest possible' : 'Closest possible:'}: ${formatDecimal(Math.abs(off), 1)} dB ${off > 0 ? 'over' : 'under'} the window.`
  return coming.value.length === 0 ? 'This strip is at its target.' : null
})
</script>

<template>
  <div class="mt-1.5" data-plan-panel>
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
      <button type="button" class="push-main" @click="apply('strip')">Set for me</button>
      <button
        v-if="coming.length > 0"
        type="button"
        class="action"
        :aria-expanded="shown === 'strip'"
        data-coming
        @click="toggle('strip')"
      >
        {{ coming.length }} to change here
      </button>
      <span v-if="several && everywhere.length > 0" class="whitespace-nowrap">
        <button type="button" class="push" @click="apply('all')">Set all strips</button>
        <button type="button" class="action ml-2" :aria-expanded="shown === 'all'" @click="toggle('all')">
          {{ everywhere.length }} to change
        </button>
      </span>
    </div>
    <p v-if="state" class="mt-1 text-muted" data-plan-state>{{ state }}</p>
    <p v-for="note in own?.notes" :key="note" class="mt-1" data-plan-note>{{ note }}</p>
    <p v-if="own?.hiss && own.hiss.lower > 0.05" class="mt-1 text-muted" data-hiss>
      Planned from front to back: hiss <span class="figure text-ink">{{ formatDecimal(own.hiss.lower, 1) }}</span> dB
      lower than with all gain at the last stage.
    </p>
    <p v-if="remedy" class="plate mt-1.5 border-l-4 border-l-ceiling px-2 py-1" data-remedy>
      {{ remedy.message }}
      <button v-if="remedy.changes.length > 0" type="button" class="action min-w-6" @click="fix">Fix</button>
    </p>
    <div v-if="shown || plan.applied.value" class="plate mt-2 border-change p-2" role="status" data-plan>
      <p class="flex justify-between font-semibold">
        {{ shown ? 'It would set' : told.length > 0 ? 'Set for you' : 'Nothing to change' }}
        <button v-if="!shown && told.length > 0" type="button" class="action font-normal" @click="plan.takeBack">
          take back
        </button>
      </p>
      <ul class="max-h-56 overflow-y-auto" tabindex="0" aria-label="Settings of the plan">
        <li v-for="setting in list" :key="setting.stage + setting.setting" class="mt-1">
          {{ setting.stripName }}: {{ setting.several ? `${setting.setting} of ${setting.gearName}` : setting.setting }}
          <span class="figure">{{ formatShort(setting.from, 1) }} → {{ formatShort(setting.to, 1) }} dB</span>.
          <span class="text-muted">{{ setting.reason }}</span>
        </li>
      </ul>
      <button v-if="shown" type="button" class="action mt-1" @click="shown = null">Close</button>
      <button v-else type="button" class="action mt-1" @click="plan.dismiss">Close</button>
    </div>
  </div>
</template>
