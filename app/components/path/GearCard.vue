<script setup lang="ts">
import { lateComponent } from '~/components/shell/late-component'
import { computed } from 'vue'
import type { ResolvedStage } from '#core/chain/resolve'
import type { Gear, Specified } from '#core/session'
import { traitsOf, withChoice } from '#core/session'
import SelectInput from '~/components/fields/SelectInput.vue'
import SpecRow from '~/components/fields/SpecRow.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import StageGains from './StageGains.vue'
import StageSwitches from './StageSwitches.vue'

const PiecesEditor = lateComponent(() => import('./PiecesEditor.vue'))
const BlocksEditor = lateComponent(() => import('./BlocksEditor.vue'))

/** Any box that needs no card of its own: its gains, its switches, what it is and what is known of it. */
const props = defineProps<{
  stage: Exclude<ResolvedStage, { kind: 'interface' | 'digital-input' | 'interface-output' }>
}>()
const edit = useStageEdit()

const traits = computed(() => traitsOf(props.stage.gear))
const choices = computed(() => traits.value.choices(props.stage.gear))
const hasPieces = computed(() => props.stage.kind === 'playback' && (props.stage.gear.pieces?.length ?? 0) > 0)
/** A slope without a low cut is nothing to fill in, nor is the level of pieces that have levels of their own. */
const fields = computed(() =>
  Object.entries(traits.value.fields(props.stage.gear)).filter(
    ([key]) =>
      (key === 'noise' || !hasPieces.value) &&
      (key !== 'lowCutSlope' || ('lowCut' in props.stage.specs && props.stage.specs.lowCut !== undefined)),
  ),
)
const editBox = (label: string, change: (gear: Gear) => Gear) =>
  edit.box(props.stage.id, props.stage.gear.id)(label, change)
const editSpecs = (label: string, change: <T extends Specified>(gear: T) => T) =>
  editBox(label, (gear) => (gear.kind === 'interface' ? gear : change(gear)))
const choose = (key: string, label: string) => (value: string) => editBox(label, (gear) => withChoice(gear, key, value))
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
  <PiecesEditor v-if="stage.kind === 'playback'" :playback="stage.gear" :stage="stage.id" />
  <SpecRow v-for="[key, field] in fields" :key="key" :owner="stage.gear" :spec="key" :field="field" :edit="editSpecs" />
</template>
