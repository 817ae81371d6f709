<script setup lang="ts">
import { NuxtLink } from '#components'
import { useSessionStore } from '~/stores/session'

/** A place of the open session, or why there is none. */
defineProps<{ missing: boolean }>()
const store = useSessionStore()
</script>

<template>
  <div class="flex min-h-0 grow flex-col">
    <p v-if="missing" class="p-6">
      There is no such session in this browser; it may have been deleted or belong to another one.
      <NuxtLink class="action" to="/sessions">See all sessions</NuxtLink>.
    </p>
    <slot v-else-if="store.session" />
    <p v-else class="p-6 text-muted" role="status">Opening…</p>
  </div>
</template>
