<script setup lang="ts">
import type { ResolvedStage } from '#core/resolved/resolve'
import DataSheetDialog from '~/components/gear/DataSheetDialog.vue'
import { useStageEdit } from '~/composables/use-stage-edit'

/** The data sheet of the device at a stage. */
defineProps<{ stage: ResolvedStage; brought: string | File | null }>()
const emit = defineEmits<{ close: [] }>()
const edit = useStageEdit()
</script>

<template>
  <DataSheetDialog
    :gear="stage.gear"
    :port="stage.kind === 'interface' ? stage.input.id : undefined"
    :brought="brought"
    undone
    :edit="edit.box(stage.id, stage.gear.id)"
    @close="emit('close')"
  />
</template>
