<script setup lang="ts">
import { shallowRef, watch } from 'vue'
import type { Change } from '#core/edits'
import type { Finding } from '#core/checks/finding'
import { findingTitles } from '#core/checks/finding-titles'
import { proving } from '#core/evaluation/verify-fix'
import { inTasks } from '~/stores/in-tasks'
import { useStageEdit } from '~/composables/use-stage-edit'

/** Does what a finding advises, where a program can. */
const props = defineProps<{ finding: Finding }>()
const emit = defineEmits<{ done: [] }>()
const edit = useStageEdit()

/** What the fix changes, once it is proven; proving takes long in a large session, and is done a slice at a time. */
const changes = shallowRef<Change[]>()
watch(
  () => props.finding,
  async (finding, _, onCleanup) => {
    let isWanted = true
    onCleanup(() => {
      isWanted = false
    })
    await inTasks(proving(finding), () => isWanted)
    if (isWanted) changes.value = finding.changes
  },
  { immediate: true },
)

function fix() {
  // The button may still be that of the finding before the last change.
  const { code, changes: now } = props.finding
  if (now) edit.changes(`Fix: ${findingTitles[code]}`, now)
  emit('done')
}
/** Switching 48 V is done by hand at the box; here only the record of it is changed. */
const word = (changes: readonly Change[]) =>
  changes.some((change) => 'setting' in change && change.setting === 'phantom') ? 'Done' : 'Fix'
</script>

<template>
  <button v-if="changes" type="button" class="action min-w-6" @click="fix">{{ word(changes) }}</button>
</template>
