<script setup lang="ts">
import type { Change } from '#core/edits'
import type { Finding } from '#core/checks/finding'
import { findingTitles } from '#core/checks/finding-titles'
import { useStageEdit } from '~/composables/use-stage-edit'

/** Does what a finding advises, where a program can. */
const props = defineProps<{ finding: Finding }>()
const emit = defineEmits<{ done: [] }>()
const edit = useStageEdit()

function fix() {
  edit.changes(`Fix: ${findingTitles[props.finding.code]}`, props.finding.changes ?? [])
  emit('done')
}
/** Switching 48 V is done by hand at the box; here only the record of it is changed. */
const word = (changes: readonly Change[]) =>
  changes.some((change) => 'setting' in change && change.setting === 'phantom') ? 'Done' : 'Fix'
</script>

<template>
  <button v-if="finding.changes" type="button" class="action min-w-6" @click="fix">{{ word(finding.changes) }}</button>
</template>
