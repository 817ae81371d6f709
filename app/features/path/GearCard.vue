<script setup lang="ts">
import { lateComponent } from '~/shared/ui/late-component'
import { computed } from 'vue'
import type { ResolvedStage } from '#core/gear/stage'
import type { Gear } from '#core/gear'
import type { Specified } from '#core/edits'
import { sheetLine, withChoice, traitsOf, hasPieces, isInterface, isPlayback, isProcessor } from '#core/gear'
import SpecRow from '~/shared/fields/SpecRow.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import ChoiceRow from './ChoiceRow.vue'
import DataSheet from './DataSheet.vue'
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
const isListed = computed(() => isPlayback(props.stage) && hasPieces(props.stage.gear))
/** A slope without a low cut is nothing to fill in, nor is the level of pieces that have levels of their own. */
const fields = computed(() =>
  Object.entries(traits.value.fields(props.stage.gear)).filter(
    ([key]) =>
      (key === 'noise' || !isListed.value) &&
      (key !== 'lowCutSlope' || ('lowCut' in props.stage.specs && props.stage.specs.lowCut !== undefined)),
  ),
)
/** Asked for where it was missing when the card was opened; it stays there while it is entered. */
const asked = new Set(
  fields.value.filter(([key, { missing }]) => missing !== undefined && !(key in props.stage.specs)).map(([key]) => key),
)
const isFirst = (key: string) => key === 'level' || asked.has(key)
const first = computed(() => Object.fromEntries(fields.value.filter(([key]) => isFirst(key))))
const sheet = computed(() => Object.fromEntries(fields.value.filter(([key]) => !isFirst(key))))
/** Choices that are made for the take, and those that the device is built with. */
const SET_HERE: ReadonlySet<string> = new Set(['pattern', 'phantom'])
const setHere = computed(() => choices.value.filter(({ key }) => SET_HERE.has(key)))
const builtIn = computed(() => choices.value.filter(({ key }) => !SET_HERE.has(key)))
const editBox = (label: string, change: (gear: Gear) => Gear) =>
  edit.box(props.stage.id, props.stage.gear.id)(label, change)
const editSpecs = (label: string, change: <T extends Specified>(gear: T) => T) =>
  editBox(label, (gear) => (isInterface(gear) ? gear : change(gear)))
const choose = (key: string, label: string) => (value: string) => editBox(label, (gear) => withChoice(gear, key, value))
</script>

<template>
  <ChoiceRow v-for="choice in setHere" :key="choice.key" :choice="choice" :commit="choose(choice.key, choice.label)" />
  <StageSwitches :stage="stage" />
  <StageGains :stage="stage" />
  <BlocksEditor v-if="isProcessor(stage)" :processor="stage.gear" />
  <PiecesEditor v-if="isPlayback(stage)" :playback="stage.gear" :stage="stage.id" />
  <SpecRow v-for="(field, key) in first" :key="key" :owner="stage.gear" :spec="key" :field="field" :edit="editSpecs" />
  <slot />
  <DataSheet :kind="stage.kind" :line="sheetLine(stage.kind, stage.gear, sheet)">
    <ChoiceRow
      v-for="choice in builtIn"
      :key="choice.key"
      :choice="choice"
      :commit="choose(choice.key, choice.label)"
    />
    <SpecRow
      v-for="(field, key) in sheet"
      :key="key"
      :owner="stage.gear"
      :spec="key"
      :field="field"
      :edit="editSpecs"
    />
  </DataSheet>
</template>
