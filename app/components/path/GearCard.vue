<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import type { ResolvedStage } from '#core/chain/resolve'
import type { Specified } from '#core/session'
import { specFields } from '#core/session'
import SelectInput from '~/components/fields/SelectInput.vue'
import SpecRow from '~/components/fields/SpecRow.vue'
import { choicesOf } from '~/components/gear/choices'
import { useStageEdit } from '~/composables/use-stage-edit'
import StageGains from './StageGains.vue'
import StageSwitches from './StageSwitches.vue'

const BlocksEditor = defineAsyncComponent(() => import('./BlocksEditor.vue'))

/** Any box that needs no card of its own: its gains, its switches, what it is and what is known of it. */
const props = defineProps<{ stage: Exclude<ResolvedStage, { kind: 'interface' | 'digital-input' }> }>()
const edit = useStageEdit()

const choices = computed(() => choicesOf(props.stage.gear))
/** A slope without a low cut is nothing to fill in. */
const fields = computed(() =>
  Object.entries(specFields[props.stage.kind]).filter(
    ([key]) => key !== 'lowCutSlope' || ('lowCut' in props.stage.specs && props.stage.specs.lowCut !== undefined),
  ),
)
const editSpecs = (label: string, change: <T extends Specified>(gear: T) => T) =>
  edit.gear(props.stage.gear.id, props.stage.kind)(label, (gear) => change(gear as never) as never)
const choose = (key: string, label: string) => (value: string) =>
  edit.gear(props.stage.gear.id, props.stage.kind)(
    label,
    (gear) => ({ ...gear, [key]: value === 'true' ? true : value === 'false' ? false : value }) as never,
  )
</script>

<template>
  <StageSwitches :stage="stage">
    <SelectInput
      v-for="choice in choices"
      :key="choice.key"
      :value="choice.value"
      :label="choice.label"
      :options="choice.options"
      :commit="choose(choice.key, choice.label)"
    />
  </StageSwitches>
  <StageGains :stage="stage" />
  <BlocksEditor v-if="stage.kind === 'processor'" :processor="stage.gear" />
  <SpecRow
    v-for="[key, field] in fields"
    :key="key"
    :owner="stage.gear as Specified"
    :spec="key"
    :field="field"
    :edit="editSpecs"
  />
</template>
