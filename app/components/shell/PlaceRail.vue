<script setup lang="ts">
import {
  AudioWaveform,
  FolderOpen,
  Headphones,
  Library,
  ListChecks,
  NotebookPen,
  Table2,
  Timer,
  Waypoints,
} from '@lucide/vue'
import { NuxtLink } from '#components'
import { useSessionStore } from '~/stores/session'
import StripList from './StripList.vue'

/** The places, in the order of the work, and the strips that they are about. */
const store = useSessionStore()
</script>

<template>
  <div class="flex shrink-0 flex-col border-line max-rail:border-t rail:w-30 rail:border-r print:hidden">
    <nav
      class="grid shrink-0 grid-cols-[repeat(auto-fit,minmax(62px,1fr))] rail:flex rail:flex-col"
      aria-label="Places"
    >
      <p class="px-3 py-3.5 text-[15px] font-semibold max-rail:hidden">Remetra</p>
      <NuxtLink :to="store.key ? `/path/${store.key}` : '/'" class="place" active-class="here"
        ><Waypoints class="size-4 shrink-0" aria-hidden="true" />Path</NuxtLink
      >
      <NuxtLink :to="store.key ? `/mix/${store.key}` : '/mix'" class="place" active-class="here"
        ><Table2 class="size-4 shrink-0" aria-hidden="true" />Mix</NuxtLink
      >
      <NuxtLink :to="store.key ? `/timing/${store.key}` : '/timing'" class="place" active-class="here"
        ><Timer class="size-4 shrink-0" aria-hidden="true" />Timing</NuxtLink
      >
      <NuxtLink :to="store.key ? `/monitoring/${store.key}` : '/monitoring'" class="place" active-class="here"
        ><Headphones class="size-4 shrink-0" aria-hidden="true" />Monitoring</NuxtLink
      >
      <NuxtLink :to="store.key ? `/bench/${store.key}` : '/bench'" class="place" active-class="here"
        ><AudioWaveform class="size-4 shrink-0" aria-hidden="true" />Bench</NuxtLink
      >
      <NuxtLink :to="store.key ? `/soundcheck/${store.key}` : '/soundcheck'" class="place" active-class="here"
        ><ListChecks class="size-4 shrink-0" aria-hidden="true" />Soundcheck</NuxtLink
      >
      <NuxtLink :to="store.key ? `/log/${store.key}` : '/log'" class="place" active-class="here"
        ><NotebookPen class="size-4 shrink-0" aria-hidden="true" />Log</NuxtLink
      >
      <NuxtLink to="/shelf" class="place" active-class="here"
        ><Library class="size-4 shrink-0" aria-hidden="true" />Gear shelf</NuxtLink
      >
      <NuxtLink to="/sessions" class="place rail:mb-2" active-class="here"
        ><FolderOpen class="size-4 shrink-0" aria-hidden="true" />Sessions</NuxtLink
      >
    </nav>
    <StripList v-if="store.session" class="max-rail:hidden" />
  </div>
</template>

<style scoped>
.place {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  padding: 0.5rem 0.5rem;
  color: var(--muted);
  border-left: 3px solid transparent;
  @media (width < 56.25rem) {
    flex-direction: column;
    gap: 0.1rem;
    padding: 0.35rem 0.1rem;
    min-height: 44px;
    font-size: 11px;
    text-align: center;
    border-left: 0;
    border-top: 3px solid transparent;
  }
}
.here {
  color: var(--ink);
  font-weight: 600;
  background: var(--sheet);
  border-color: var(--change);
}
</style>
