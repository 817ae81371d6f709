<script setup lang="ts">
import { ref, watch } from 'vue'
import { NuxtLink } from '#components'
import { definePageMeta, useRoute, useRouter } from '#imports'
import PathView from '~/components/path/PathView.vue'
import { useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

// The front door is this place too: a redirect would cost a first visit a third of its time.
definePageMeta({ alias: ['/'], key: 'path' })
defineProps<{ startNew: () => void }>()
const route = useRoute()
const router = useRouter()
const library = useLibraryStore()
const store = useSessionStore()
const view = useViewStore()
const missing = ref(false)

watch(() => route.params.key, async (key) => {
  // Before the session is there, or the address would be set to its first strip.
  if (typeof route.query.strip === 'string') view.select(route.query.strip)
  if (typeof key === 'string' && key !== '') {
    missing.value = !await library.show(key)
    return
  }
  const landing = await library.landing()
  await router.replace(landing ? `/path/${landing}` : '/sessions')
}, { immediate: true })

// The strip stands in the address, so that a reload and a second tab show the same one.
watch([() => view.strip?.id, () => route.params.key], ([strip, key]) => {
  if (strip && store.key === key && route.query.strip !== strip) void router.replace({ query: { ...route.query, strip } })
})
</script>

<template>
  <div class="flex min-h-0 grow flex-col">
    <p v-if="missing" class="p-6">There is no such session in this browser; it may have been deleted or belong to another one. <NuxtLink class="action" to="/sessions">See all sessions</NuxtLink>.</p>
    <template v-else-if="store.session">
      <p v-if="store.session.id === 'net-loft'" class="px-5 pt-1.5 text-muted">This is the demo: invented people and gear in an old net loft. Change anything, or <button type="button" class="action" @click="startNew">start your own</button>.</p>
      <PathView />
    </template>
    <p v-else class="p-6 text-muted" role="status">Opening…</p>
  </div>
</template>
