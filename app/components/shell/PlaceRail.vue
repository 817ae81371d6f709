<script setup lang="ts">
import { FolderOpen, Waypoints } from '@lucide/vue'
import { NuxtLink } from '#components'
import { useSessionStore } from '~/stores/session'

/** The places, in the order of the work. */
const store = useSessionStore()
</script>

<template>
  <nav class="flex w-22 shrink-0 flex-col border-r border-line print:hidden" aria-label="Places">
    <p class="px-3 py-3.5 text-[15px] font-semibold">Remetra</p>
    <NuxtLink :to="store.key ? `/path/${store.key}` : '/'" class="place" active-class="here"><Waypoints class="size-4 shrink-0" aria-hidden="true" />Path</NuxtLink>
    <NuxtLink to="/sessions" class="place mt-auto mb-3" active-class="here"><FolderOpen class="size-4 shrink-0" aria-hidden="true" />Sessions</NuxtLink>
  </nav>
</template>

<style scoped>
.place {
  display: flex;
  align-items: center;
  gap: 0.35rem;
  padding: 0.9rem 0.4rem;
  color: var(--muted);
  border-left: 3px solid transparent;
}
.here {
  color: var(--ink);
  font-weight: 600;
  background: var(--sheet);
  border-left-color: var(--change);
}
</style>
