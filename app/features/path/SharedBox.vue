<script setup lang="ts">
import { computed } from 'vue'
import type { ResolvedStage } from '#core/gear/stage'
import { alsoIn, isUnit } from '#core/edits'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** A box that stands in other strips too: which, and the way to one of its own. A unit of many inputs is shared by nature. */
const props = defineProps<{ stage: ResolvedStage }>()
const store = useSessionStore()
const view = useViewStore()
const edit = useStageEdit()

const others = computed(() =>
  store.session && view.strip ? alsoIn(store.session, props.stage.gear.id, view.strip.id).map(({ name }) => name) : [],
)
const justEdited = computed(() => edit.sharedEdit.value?.stage === props.stage.id)
const onlyHere = () => edit.onlyHere(props.stage.id, justEdited.value ? edit.sharedEdit.value?.before : undefined)
</script>

<template>
  <p
    v-if="others.length > 0 && (justEdited || !isUnit(stage.gear))"
    class="mb-1 text-xs text-muted"
    :role="justEdited ? 'status' : undefined"
    data-also-in
  >
    {{ justEdited ? 'Changed in these strips too' : 'Also in' }}: {{ others.map((name) => `“${name}”`).join(', ') }}.
    <button v-if="!isUnit(stage.gear)" type="button" class="action" @click="onlyHere">
      {{ justEdited ? 'Only here' : 'Make it a device of its own' }}
    </button>
  </p>
</template>
