<script setup lang="ts">
import type { Component } from 'vue'
import {
  AudioWaveform,
  FolderOpen,
  GraduationCap,
  Headphones,
  Library,
  ListChecks,
  NotebookPen,
  SearchCheck,
  Table2,
  Timer,
  Waypoints,
} from '@lucide/vue'
import { NuxtLink } from '#components'
import type { Place } from '~/composables/places'
import { places } from '~/composables/places'
import { useSessionStore } from '~/stores/session'
import StripList from './StripList.vue'

/** The places, in the order of the work, and the strips that they are about. */
const store = useSessionStore()
const ICONS: Record<Place, Component> = {
  path: Waypoints,
  mix: Table2,
  timing: Timer,
  monitoring: Headphones,
  bench: AudioWaveform,
  soundcheck: ListChecks,
  log: NotebookPen,
  faults: SearchCheck,
  trainer: GraduationCap,
}
/** Without an open session a place finds its own; the path is where one lands. */
const addressOf = (id: Place) => (store.key ? `/${id}/${store.key}` : id === 'path' ? '/' : `/${id}`)
</script>

<template>
  <div class="flex shrink-0 flex-col border-line max-rail:border-t rail:w-30 rail:border-r print:hidden">
    <nav
      class="grid shrink-0 grid-cols-[repeat(auto-fit,minmax(62px,1fr))] rail:flex rail:flex-col"
      aria-label="Places"
    >
      <p class="px-3 py-3.5 text-[15px] font-semibold max-rail:hidden">Remetra</p>
      <NuxtLink v-for="{ id, title } in places" :key="id" :to="addressOf(id)" class="place" active-class="here"
        ><component :is="ICONS[id]" class="size-4 shrink-0" aria-hidden="true" />{{ title }}</NuxtLink
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
