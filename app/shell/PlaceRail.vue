<script setup lang="ts">
import type { Component } from 'vue'
import { computed } from 'vue'
import {
  AudioWaveform,
  Ellipsis,
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
import { useRoute } from '#imports'
import type { Place } from '~/composables/places'
import { places } from '~/composables/places'
import { useSessionStore } from '~/stores/session'
import PopUp from '~/shared/ui/PopUp.vue'
import OwnTask from '~/shared/ui/OwnTask.vue'
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
const route = useRoute()
/** On a phone what is wanted with gear in the other hand stands in the bar; the rest is behind one press. */
const AT_HAND: ReadonlySet<string> = new Set(['path', 'mix', 'soundcheck', 'log', 'faults'])
const more = computed(() => [
  ...places.filter(({ id }) => !AT_HAND.has(id)).map(({ id, title }) => ({ to: addressOf(id), title })),
  { to: '/shelf', title: 'Gear shelf' },
  { to: '/sessions', title: 'Sessions' },
])
const isElsewhere = computed(() => !AT_HAND.has(route.path.split('/')[1] || 'path'))
const addressOf = (id: Place) => (store.key ? `/${id}/${store.key}` : id === 'path' ? '/' : `/${id}`)
</script>

<template>
  <div class="flex shrink-0 flex-col border-line max-rail:border-t rail:w-30 rail:border-r print:hidden">
    <nav
      class="grid shrink-0 grid-cols-[repeat(auto-fit,minmax(62px,1fr))] rail:flex rail:flex-col"
      aria-label="Places"
    >
      <p class="px-3 py-3.5 text-[15px] font-semibold max-rail:hidden">Remetra</p>
      <NuxtLink
        v-for="{ id, title } in places"
        :key="id"
        :to="addressOf(id)"
        class="place"
        :class="{ 'max-card:hidden!': !AT_HAND.has(id) }"
        active-class="here"
        ><component :is="ICONS[id]" class="size-4 shrink-0" aria-hidden="true" />{{ title }}</NuxtLink
      >
      <NuxtLink to="/shelf" class="place max-card:hidden!" active-class="here"
        ><Library class="size-4 shrink-0" aria-hidden="true" />Gear shelf</NuxtLink
      >
      <NuxtLink to="/sessions" class="place rail:mb-2 max-card:hidden!" active-class="here"
        ><FolderOpen class="size-4 shrink-0" aria-hidden="true" />Sessions</NuxtLink
      >
      <PopUp
        class="grid card:hidden"
        label="More places"
        side="top"
        takes-focus
        :button-class="`place w-full ${isElsewhere ? 'here' : ''}`"
        panel-class="w-44 py-1"
      >
        <template #button><Ellipsis class="size-4 shrink-0" aria-hidden="true" />More</template>
        <template #default="{ close }">
          <NuxtLink
            v-for="{ to, title } in more"
            :key="to"
            :to="to"
            class="flex min-h-11 items-center px-4 hover:bg-change hover:text-on-change"
            @click="close()"
            >{{ title }}</NuxtLink
          >
        </template>
      </PopUp>
    </nav>
    <OwnTask v-if="store.session" :key="store.key ?? ''"><StripList class="max-rail:hidden" /></OwnTask>
  </div>
</template>

<style scoped>
:deep(.place),
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
:deep(.here),
.here {
  color: var(--ink);
  font-weight: 600;
  background: var(--sheet);
  border-color: var(--change);
}
</style>
