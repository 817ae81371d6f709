<script setup lang="ts">
import { isInterface } from '#core/gear'
import { computed, ref } from 'vue'
import type { SheetLine } from '#core/files'
import { fittingDevice } from '#core/files'
import type { ResolvedStage } from '#core/gear/stage'
import DataSheetDialog from '~/shared/gear/DataSheetDialog.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'

/** The data sheet of the device at a stage: of the one in hand, or of another that what was brought fits better. */
const props = defineProps<{ stages: readonly ResolvedStage[]; inHand: string; brought: string | File | null }>()
const emit = defineEmits<{ close: [] }>()
const edit = useStageEdit()

const id = ref(props.inHand)
const at = computed(() =>
  Math.max(
    0,
    props.stages.findIndex((each) => each.id === id.value),
  ),
)
const stage = computed(() => props.stages[at.value] as ResolvedStage)
const portOf = (each: ResolvedStage) => (isInterface(each) ? each.input.id : undefined)
const options = computed(() => props.stages.map((each) => ({ value: each.id, text: each.gear.name })))

/** What is brought finds its device by itself; what is typed later stays where the hand put it. */
let isSettled = props.brought === null
function settle(lines: readonly SheetLine[]) {
  if (isSettled || lines.length === 0) return
  isSettled = true
  const devices = props.stages.map((each) => ({ gear: each.gear, port: portOf(each) }))
  id.value = props.stages[fittingDevice(lines, devices, at.value)]?.id ?? id.value
}
function choose(to: string) {
  id.value = to
  isSettled = true
  return null
}
</script>

<template>
  <DataSheetDialog
    :gear="stage.gear"
    :port="portOf(stage)"
    :brought="brought"
    undone
    :edit="edit.box(stage.id, stage.gear.id)"
    @read="settle"
    @close="emit('close')"
  >
    <label v-if="brought !== null" class="flex items-baseline gap-2"
      >Its figures go to <SelectInput :value="stage.id" label="Its figures go to" :options="options" :commit="choose"
    /></label>
  </DataSheetDialog>
</template>
