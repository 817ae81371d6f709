<script setup lang="ts">
import { useStageEdit } from '~/composables/use-stage-edit'
import { useTypedField } from '~/composables/use-typed-field'
import { useSessionStore } from '~/stores/session'

/** What else is to be remembered of this session. */
const store = useSessionStore()
const edit = useStageEdit()
const { typed, refusal, type, take, giveBack } = useTypedField((notes) =>
  edit.session('Notes', (session) => ({ ...session, notes })),
)
</script>

<template>
  <details v-if="store.session">
    <summary class="cursor-pointer border-b border-ink pb-0.5 font-semibold">Notes</summary>
    <textarea
      class="mt-1.5 w-full border border-rule bg-sheet p-1.5"
      rows="5"
      maxlength="20000"
      aria-label="Notes on the session"
      :value="typed ?? store.session.notes"
      :data-typed="typed === null ? undefined : ''"
      @input="type"
      @blur="take"
      @keydown.esc="giveBack"
    />
    <p v-if="refusal" role="alert" class="text-ceiling">{{ refusal }}</p>
  </details>
</template>
