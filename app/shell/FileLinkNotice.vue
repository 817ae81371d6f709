<script setup lang="ts">
import { useFileLink } from './use-file-link'

/** The file on disk in which the open session is kept besides, and what it needs. */
const file = useFileLink()
defineExpose({ choose: file.choose })
</script>

<template>
  <div
    v-if="file.state.value !== 'none' || file.trouble.value"
    class="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b border-line px-3 py-1 card:px-5 print:hidden"
    role="status"
    data-file-link
  >
    <template v-if="file.state.value === 'kept'">
      <span class="text-muted">Kept in the file “{{ file.name.value }}” too.</span>
    </template>
    <template v-else-if="file.state.value === 'ask'">
      <span>The browser asks again before it writes to “{{ file.name.value }}”.</span>
      <button type="button" class="action" @click="file.allow">Allow it</button>
    </template>
    <template v-else-if="file.state.value === 'changed-outside'">
      <strong>“{{ file.name.value }}” was changed by something else.</strong>
      <button type="button" class="action" @click="file.takeFile">Load the file</button>
      <button type="button" class="action" @click="file.overwrite">Overwrite</button>
    </template>
    <template v-if="file.trouble.value">
      <span class="text-ceiling">The file was not written: {{ file.trouble.value }}</span>
      <button type="button" class="action" @click="file.try">Try again</button>
    </template>
    <button v-if="file.name.value" type="button" class="action" @click="file.unlink">Unlink</button>
  </div>
</template>
