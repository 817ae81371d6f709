<script setup lang="ts">
import { computed } from 'vue'
import type { ResolvedStage } from '#core/chain/resolve'
import type { Specified } from '#core/session'
import { inputSpecs, traitsOf } from '#core/session'
import SpecSheetDialog from '~/components/gear/SpecSheetDialog.vue'
import { useStageEdit } from '~/composables/use-stage-edit'

/** A pasted specification sheet for the box of a stage, or for the input of a unit. */
const props = defineProps<{ stage: ResolvedStage }>()
const emit = defineEmits<{ close: [] }>()
const edit = useStageEdit()

const input = computed(() => (props.stage.kind === 'interface' ? props.stage.input : null))
const fields = computed(() => (input.value ? inputSpecs : traitsOf(props.stage.gear).fields(props.stage.gear)))
const gainMin = computed(() => {
  const { specs } = (input.value ?? props.stage.gear) as { specs?: { gainMin?: number } }
  return specs?.gainMin
})
const take = (label: string, change: <T extends Specified>(owner: T) => T) =>
  input.value
    ? edit.input(props.stage.gear.id, input.value.id)(label, change)
    : edit.box(props.stage.id, props.stage.gear.id)(label, (gear) => (gear.kind === 'interface' ? gear : change(gear)))
</script>

<template>
  <SpecSheetDialog
    :name="input ? `${stage.gear.name}, input ${input.id}` : stage.gear.name"
    :fields="fields"
    :gain-min="gainMin"
    :edit="take"
    @close="emit('close')"
  />
</template>
