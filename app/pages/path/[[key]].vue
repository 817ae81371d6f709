<script setup lang="ts">
import { definePageMeta } from '#imports'
import PathView from '~/components/path/PathView.vue'
import SessionPlace from '~/components/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'
import { useSessionStore } from '~/stores/session'

// The front door is this place too: a redirect would cost a first visit a third of its time.
definePageMeta({ alias: ['/'], key: 'path' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const store = useSessionStore()
const { missing } = useSessionRoute('path')
</script>

<template>
  <SessionPlace :missing="missing">
    <p v-if="store.session?.id === 'net-loft'" class="px-5 pt-1.5 text-muted">
      This is the demo: invented people and gear in an old net loft. Change anything, or
      <button type="button" class="action" @click="startNew">start your own</button>.
    </p>
    <PathView />
  </SessionPlace>
</template>
