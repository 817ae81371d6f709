<script setup lang="ts">
import { Copy, Trash2 } from '@lucide/vue'
import { format } from 'date-fns'
import { onMounted, onUnmounted, ref } from 'vue'
import { NuxtLink } from '#components'
import { useRouter } from '#imports'
import TextInput from '~/components/fields/TextInput.vue'
import type { SessionSummary } from '~/stores/library'
import { useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'

/** All sessions of this browser: open, rename, duplicate, delete and bring back. */
const emit = defineEmits<{ startNew: []; importFile: [] }>()
const library = useLibraryStore()
const store = useSessionStore()
const router = useRouter()
const trouble = ref<string | null>(null)
const justDeleted = ref<SessionSummary | null>(null)
let stop = () => {}

async function openDemo() {
  await router.push(`/path/${await library.openDemo()}`)
}
async function duplicate(key: string) {
  const copy = await library.duplicate(key)
  if (copy) await router.push(`/path/${copy}`)
}
async function remove(row: SessionSummary) {
  await library.remove(row.key)
  justDeleted.value = row
}
async function restore(key: string) {
  await library.restore(key)
  justDeleted.value = null
}
async function rename(key: string, name: string) {
  trouble.value = await library.rename(key, name)
}

onMounted(() => {
  stop = library.watch()
})
onUnmounted(() => stop())
</script>

<template>
  <div class="mx-auto w-full max-w-4xl px-6 py-5">
    <div class="flex items-center gap-3 border-b border-ink pb-2">
      <h2 class="grow text-lg">Sessions in this browser</h2>
      <button type="button" class="push-main" @click="emit('startNew')">Start a new one</button>
      <button type="button" class="push" @click="emit('importFile')">Import…</button>
      <button type="button" class="push" @click="openDemo">Open the demo</button>
    </div>
    <p v-if="trouble ?? library.trouble" role="alert" class="mt-2 text-ceiling">{{ trouble ?? library.trouble }}</p>
    <div v-if="justDeleted" role="status" class="plate mt-2 flex items-baseline gap-3 px-3 py-2">
      “{{ justDeleted.name }}” was deleted.
      <button type="button" class="action" @click="restore(justDeleted.key)">Undo</button>
    </div>
    <p v-if="library.kept.length === 0" class="mt-6 text-muted">
      No session is kept here. Start a new one, import a file, or open the demo to look around.
    </p>
    <ul>
      <li
        v-for="row in library.kept"
        :key="row.key"
        class="flex items-baseline gap-4 border-b border-line py-2"
        :data-session="row.name"
      >
        <TextInput
          class="grow text-[15px] font-semibold"
          :value="row.name"
          :label="`Name of ${row.name}`"
          :commit="
            (name) => {
              rename(row.key, name)
              return null
            }
          "
        />
        <span v-if="row.key === store.key" class="text-change">open</span>
        <span class="figure text-muted">{{ format(row.updatedAt, 'yyyy-MM-dd HH:mm') }}</span>
        <NuxtLink class="action" :to="`/path/${row.key}`"
          >Open<span class="sr-only"> {{ row.name }}</span></NuxtLink
        >
        <button type="button" class="action" @click="duplicate(row.key)">
          <Copy class="inline size-3.5" aria-hidden="true" /> Duplicate<span class="sr-only"> {{ row.name }}</span>
        </button>
        <button type="button" class="action" @click="remove(row)">
          <Trash2 class="inline size-3.5" aria-hidden="true" /> Delete<span class="sr-only"> {{ row.name }}</span>
        </button>
      </li>
    </ul>
    <details v-if="library.deleted.length > 0" class="mt-6">
      <summary class="cursor-pointer text-muted">{{ library.deleted.length }} deleted, kept for 30 days</summary>
      <ul>
        <li v-for="row in library.deleted" :key="row.key" class="flex items-baseline gap-4 border-b border-line py-1.5">
          <span class="grow">{{ row.name }}</span><span class="figure text-muted">{{
            format(row.deletedAt, 'yyyy-MM-dd HH:mm')
          }}</span>
          <button type="button" class="action" @click="restore(row.key)">
            Restore<span class="sr-only"> {{ row.name }}</span>
          </button>
        </li>
      </ul>
    </details>
  </div>
</template>
