<script setup lang="ts">
import { watch } from 'vue'
import { NuxtLink } from '#components'
import { lateComponent } from '~/shared/ui/late-component'
import { saveFile } from '~/composables/file-access'
import { useLibraryStore } from '~/stores/library'
import { GUEST_KEY } from '~/stores/second-screen'
import type { Shown } from '~/stores/session'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import { useRoute } from '#imports'

const WaitingForDevice = lateComponent(() => import('~/features/second-screen/WaitingForDevice.vue'))

/** A place of the open session, or why there is none and what can be done. */
const props = defineProps<{ shown: Shown | null }>()
const emit = defineEmits<{ again: [] }>()
const store = useSessionStore()
const library = useLibraryStore()
const route = useRoute()

/** The picture stands by then; what it does without is fetched, ms. */
const AFTER_PICTURE = 600
const view = useViewStore()
watch(
  () => props.shown?.state === 'open',
  (open) => {
    if (open)
      setTimeout(() => {
        void store.fetchPlanner()
        void view.fetchTiming()
        void view.fetchHowSure()
      }, AFTER_PICTURE)
  },
  { immediate: true },
)

async function restore() {
  if (await library.restore(String(route.params.key))) emit('again')
}
const saveRaw = () =>
  (props.shown?.state === 'unreadable' || props.shown?.state === 'newer') &&
  saveFile(JSON.stringify(props.shown.raw, null, 2), 'application/json', 'session-as-found.json', 'remetra')
</script>

<template>
  <div class="flex min-h-0 grow flex-col">
    <WaitingForDevice v-if="shown === null && route.params.key === GUEST_KEY" />
    <p v-else-if="shown === null" class="p-6 text-muted" role="status">Opening…</p>
    <slot v-else-if="shown.state === 'open' && store.session && store.key === route.params.key" />
    <div v-else-if="shown.state !== 'open'" class="max-w-prose space-y-3 p-6" role="alert" data-not-open>
      <p v-if="shown.state === 'absent'">
        There is no such session in this browser; it may have been deleted permanently, or belong to another browser.
      </p>
      <p v-else-if="shown.state === 'deleted'">
        “{{ shown.name }}” was deleted. <button type="button" class="action" @click="restore">Restore it</button>
      </p>
      <template v-else-if="shown.state === 'newer'">
        <p>
          A newer version of Remetra wrote “{{ shown.name }}”. This older version leaves it unchanged. Reload the page
          to get the newer version, or save the session as it is.
        </p>
        <p>
          <button type="button" class="push" @click="saveRaw">Save as found</button>
        </p>
      </template>
      <template v-else-if="shown.state === 'unreadable'">
        <p>{{ shown.why }} It is left as it is.</p>
        <p>
          <button type="button" class="push" @click="saveRaw">Save what is there as a file</button>
        </p>
      </template>
      <template v-else>
        <p>{{ shown.why }}</p>
        <p><button type="button" class="push" @click="emit('again')">Try again</button></p>
      </template>
      <p><NuxtLink class="action" to="/sessions">See all sessions</NuxtLink></p>
    </div>
    <p v-else class="p-6 text-muted" role="status">Opening…</p>
  </div>
</template>
