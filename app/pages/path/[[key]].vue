<script setup lang="ts">
import { computed } from 'vue'
import { definePageMeta } from '#imports'
import PathView from '~/features/path/PathView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'
import { GUEST_KEY } from '~/stores/second-screen'
import { useSessionStore } from '~/stores/session'

// The front door is this place too: a redirect would cost a first visit a third of its time.
definePageMeta({ alias: ['/'], key: 'path' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const store = useSessionStore()
/** As long as it is still the demo: under its name, with its strips. */
const isDemo = computed(
  () =>
    store.key !== GUEST_KEY &&
    store.session?.id === 'net-loft' &&
    store.session.name === 'Net loft, evening' &&
    store.session.strips.map(({ id }) => id).join() === 'narrator,cello,harmonium,tide,pieces,music,stream,preview',
)
const { shown, again } = useSessionRoute('path')
</script>

<template>
  <SessionPlace :shown="shown" @again="again">
    <p v-if="isDemo" class="px-5 pt-1.5 text-muted">
      This is the demo: invented people and gear in an old net loft. Change anything, or
      <button type="button" class="action" @click="startNew">start your own</button>.
    </p>
    <PathView />
  </SessionPlace>
</template>
