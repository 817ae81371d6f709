<script setup lang="ts">
import { format } from 'date-fns'
import { useLogViewStore } from './log-view'
import SheetBody from './SheetBody.vue'

/** The sheet of the log that is looked at, on paper. */
const view = useLogViewStore()
</script>

<template>
  <article class="space-y-3 text-[11px]">
    <header class="flex items-baseline justify-between border-b-2 border-ink pb-1">
      <h1 class="text-lg">{{ view.title }}</h1>
      <p>Remetra, {{ format(Date.now(), 'd MMMM yyyy, HH:mm') }}</p>
    </header>
    <SheetBody whole />
  </article>
</template>
