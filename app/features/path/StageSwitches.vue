<script setup lang="ts">
import { computed } from 'vue'
import { lowCutWords } from '#core/chain/low-cut'
import type { ResolvedStage } from '#core/gear/stage'
import type { SettingName, SwitchName } from '#core/model'
import { traitsOf, isDeskChannel, isInterface } from '#core/gear'
import { settingFields } from '#core/model'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SetRow from '~/shared/fields/SetRow.vue'
import SwitchChip from '~/shared/fields/SwitchChip.vue'
import { useStageEdit } from '~/composables/use-stage-edit'

/** The switches of a stage – 48 V, pad, low cut, tap – and the cable into it. */
const props = defineProps<{ stage: ResolvedStage }>()
const edit = useStageEdit()

const port = computed(() =>
  'input' in props.stage && typeof props.stage.input === 'object' ? props.stage.input.id : undefined,
)
const traits = computed(() => traitsOf(props.stage.gear))
const takes = (setting: SettingName) => traits.value.settings(props.stage.gear, port.value).includes(setting)
const has = (setting: SwitchName) => takes(setting) && traits.value.hasSwitch(props.stage.gear, port.value, setting)
const on = (setting: SwitchName) => props.stage.settings[setting] ?? false
const bank = computed(() =>
  isInterface(props.stage)
    ? props.stage.input.phantomBank
    : isDeskChannel(props.stage)
      ? props.stage.gear.phantomBank
      : undefined,
)
const lowCut = computed(() =>
  'specs' in props.stage && 'lowCut' in props.stage.specs && props.stage.specs.lowCut !== undefined && on('lowCut')
    ? lowCutWords(props.stage.specs.lowCut, props.stage.specs.lowCutSlope)
    : null,
)
/** What is measured with a rule or a protractor, not turned. */
const NUMBERS = [
  { setting: 'angle', words: settingFields.angle.label, step: 5 },
  { setting: 'distance', words: 'To the listener', step: 0.5 },
  { setting: 'toMicrophone', words: settingFields.toMicrophone.label, step: 0.5 },
  { setting: 'cable', words: 'Input cable', step: 1 },
] as const
const numbers = computed(() => NUMBERS.filter(({ setting }) => takes(setting)))
const taps = [
  { value: 'post', text: 'after the fader' },
  { value: 'pre', text: 'before the fader' },
] as const
</script>

<template>
  <div class="mt-1 flex flex-wrap items-baseline gap-x-3 gap-y-1 empty:hidden">
    <SwitchChip
      v-if="has('phantom')"
      :on="on('phantom')"
      label="48 V"
      caution="Mute the outputs first, wait before plugging or unplugging, and mind what else the bank feeds."
      @change="edit.phantom(stage.id)($event)"
    />
    <SwitchChip v-if="has('pad')" :on="on('pad')" label="pad" @change="edit.setting(stage.id, 'pad', 'Pad')($event)" />
    <SwitchChip
      v-if="has('lowCut')"
      :on="on('lowCut')"
      label="low cut"
      @change="edit.setting(stage.id, 'lowCut', 'Low cut')($event)"
    />
    <SelectInput
      v-if="isDeskChannel(stage)"
      :value="stage.settings.tap ?? 'post'"
      label="Taken"
      :options="taps"
      :commit="edit.setting(stage.id, 'tap', 'Tap')"
    />
  </div>
  <p v-if="lowCut" class="mt-1 text-xs text-muted">The low cut {{ lowCut }}.</p>
  <p v-if="has('phantom')" class="mt-1 text-xs text-muted">
    Mute the outputs before switching 48 V{{ bank ? `; bank ${bank} gets it together` : '' }}.
  </p>
  <SetRow v-for="each in numbers" :key="each.setting" :label="each.words" :help="settingFields[each.setting].help">
    <NumberInput
      :value="stage.settings[each.setting]"
      :field="settingFields[each.setting]"
      :step="each.step"
      :commit="edit.optionalSetting(stage.id, each.setting, each.words)"
    /><span class="w-14.5" />
  </SetRow>
</template>
