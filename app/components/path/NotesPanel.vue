<script setup lang="ts">
import { useStageEdit } from '~/composables/use-stage-edit'
import { useSessionStore } from '~/stores/session'

/** What else is to be remembered of this session. Kept when the field is left. */
const store = useSessionStore()
const edit = useStageEdit()

function keep(event: Event) {
  const notes = (event.target as HTMLTextAreaElement).value
  edit.session('Notes', (session) => ({ ...session, notes }))
}
</script>

<template>
  <details v-if="store.session">
    <summary class="cursor-pointer border-b border-ink pb-0.5 font-semibold">Notes</summary>
    <textarea
      class="mt-1.5 w-full border border-rule bg-sheet p-1.5"
      rows="5"
      maxlength="20000"
      aria-label="Notes on the session"
      :value="store.session.notes"
      @change="keep"
    />
  </details>
</template>
