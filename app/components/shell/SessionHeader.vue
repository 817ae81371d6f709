<script setup lang="ts">
import { Download, HardDriveDownload, Keyboard, Moon, Printer, Redo2, Sun, Undo2, Upload } from '@lucide/vue'
import { computed } from 'vue'
import TextInput from '~/components/fields/TextInput.vue'
import { useSessionStore } from '~/stores/session'
import { unlogged } from '~/stores/unlogged'

/** The session’s name, whether it is kept, and what can be done with it as a whole. */
defineProps<{ dark: boolean; canLink: boolean }>()
const emit = defineEmits<{ exportFile: []; link: []; importFile: []; keys: []; theme: []; print: [] }>()
const store = useSessionStore()

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
const state = computed(() => {
  if (store.trouble || store.gone || unlogged.value > 0) return 'not kept'
  if (store.saving) return 'saving…'
  return store.savedAt ? `saved ${clock.format(store.savedAt)}` : ''
})
const rename = (name: string) => store.edit('Rename the session', (session) => ({ ...session, name }))
</script>

<template>
  <header class="flex flex-wrap items-center gap-x-3 px-3 py-1 card:px-5 card:py-2">
    <h1 class="min-w-28 grow text-[17px]">
      <TextInput class="w-full" :value="store.session?.name ?? ''" label="Name of the session" :commit="rename" />
    </h1>
    <span class="text-muted" role="status" :title="store.copyTrouble ?? undefined" data-saved>{{ state }}</span>
    <div class="ml-auto flex flex-wrap items-center gap-1 max-card:w-full max-card:justify-between card:gap-3">
      <button
        type="button"
        class="tool"
        :disabled="!store.undoLabel"
        :title="store.undoLabel ? `Undo: ${store.undoLabel} (Ctrl+Z)` : 'Nothing to undo'"
        @click="store.undo"
      >
        <Undo2 class="size-4" aria-hidden="true" /><span class="max-card:sr-only">Undo</span>
      </button>
      <button
        type="button"
        class="tool"
        :disabled="!store.redoLabel"
        :title="store.redoLabel ? `Redo: ${store.redoLabel} (Ctrl+Shift+Z)` : 'Nothing to redo'"
        @click="store.redo"
      >
        <Redo2 class="size-4" aria-hidden="true" /><span class="max-card:sr-only">Redo</span>
      </button>
      <button type="button" class="tool" title="Export the session to a file (E)" @click="emit('exportFile')">
        <Download class="size-4" aria-hidden="true" /><span class="max-card:sr-only">Export</span>
      </button>
      <button
        v-if="canLink"
        type="button"
        class="tool"
        title="Keep this session in a file on disk too, written after each change"
        aria-label="Keep in a file"
        @click="emit('link')"
      >
        <HardDriveDownload class="size-4" aria-hidden="true" />
      </button>
      <button
        type="button"
        class="tool"
        title="Import a session file (I); or drop it, or paste it"
        @click="emit('importFile')"
      >
        <Upload class="size-4" aria-hidden="true" /><span class="max-card:sr-only">Import</span>
      </button>
      <button type="button" class="tool" title="Print this path (P)" aria-label="Print" @click="emit('print')">
        <Printer class="size-4" aria-hidden="true" />
      </button>
      <button
        type="button"
        class="tool"
        :title="dark ? 'Drawing office (T)' : 'Control room (T)'"
        aria-label="Change the theme"
        @click="emit('theme')"
      >
        <component :is="dark ? Sun : Moon" class="size-4" aria-hidden="true" />
      </button>
      <button type="button" class="tool" title="Keys (?)" aria-label="Keys" @click="emit('keys')">
        <Keyboard class="size-4" aria-hidden="true" />
      </button>
    </div>
  </header>
</template>

<style scoped>
.tool {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 0.25rem;
  min-width: 1.5rem;
  min-height: 1.5rem;
  @media (pointer: coarse) {
    min-width: 44px;
    min-height: 44px;
  }
  &:hover {
    color: var(--change);
  }
  &:disabled {
    opacity: 0.45;
    cursor: default;
    color: inherit;
  }
}
</style>
