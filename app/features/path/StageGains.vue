<script setup lang="ts">
import { Lock, LockOpen } from '@lucide/vue'
import { computed, inject } from 'vue'
import type { GainControl } from '#core/chain/gain-control'
import { gainControls } from '#core/chain/gain-control'
import { gainToPosition, positionInWords } from '#core/chain/knob'
import type { ResolvedStage } from '#core/gear/stage'
import { settingFields } from '#core/model'
import NumberInput from '~/shared/fields/NumberInput.vue'
import { turnedGain } from '~/composables/turned'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useStripStages } from '~/composables/use-strip-stages'
import { useViewStore } from '~/stores/view'
import { controlName } from './control-name'
import { GAINS_ELSEWHERE } from './gains-elsewhere'
import GainScale from '~/shared/fields/GainScale.vue'

/** The gains of a stage, each with its scale, its lock and, where its knob is marked, the knob’s position. */
const props = defineProps<{ stage: ResolvedStage; narrow?: boolean }>()
const elsewhere = inject(GAINS_ELSEWHERE, false)
const edit = useStageEdit()
const view = useViewStore()
const { stages, controls, planned } = useStripStages()

const own = computed(() => gainControls(props.stage))
const name = (control: GainControl) => controlName(control, controls.value.length, stages.value)
const field = (control: GainControl) => ({
  ...settingFields[control.setting],
  label: name(control),
  min: control.range.gainMin,
  max: control.range.gainMax,
})
const word = { gain: 'Gain', fader: 'Fader' } as const

function knob(control: GainControl): string | null {
  const position = control.knob && gainToPosition(control.knob, control.value)
  return position ? positionInWords(position) : null
}
const toggleLock = (control: GainControl) =>
  edit.stage(control.locked ? 'Unlock' : 'Lock', props.stage.id, (stage) => {
    const others = (stage.locked ?? []).filter((each) => each !== control.setting)
    const locked = control.locked ? others : [...others, control.setting]
    return { ...stage, locked: locked.length > 0 ? locked : undefined }
  })
</script>

<template>
  <div v-for="control in own" :key="control.setting" class="mt-1" :class="{ '[&_input]:min-w-9!': narrow }">
    <div v-if="!elsewhere" class="flex items-baseline justify-between gap-1">
      <span v-if="!narrow" class="font-semibold">{{ word[control.setting] }}</span>
      <span class="flex items-baseline gap-1 font-semibold" :class="{ 'ml-auto': !narrow }">
        <NumberInput
          :value="control.value"
          :field="field(control)"
          :step="control.range.gainStep || 0.5"
          :commit="edit.setting(stage.id, control.setting, name(control))"
        />
        <button
          type="button"
          class="icon-button -my-1 self-center text-muted"
          :class="{ 'text-ink!': control.locked }"
          :aria-pressed="control.locked"
          :aria-label="`${name(control)} locked: the plan leaves it alone`"
          :title="control.locked ? 'Locked: the plan leaves it alone' : 'Lock: the plan shall leave it alone'"
          @click="toggleLock(control)"
        >
          <component :is="control.locked ? Lock : LockOpen" class="size-3.5" aria-hidden="true" />
        </button>
      </span>
    </div>
    <GainScale
      v-if="!elsewhere"
      :control="turnedGain(view.strip?.id ?? '', control)"
      :name="name(control)"
      :narrow="narrow"
      :planned="planned(stage.id, control.setting)"
    />
    <p v-if="knob(control) && !narrow" class="text-muted">Knob about {{ knob(control) }}.</p>
  </div>
</template>
