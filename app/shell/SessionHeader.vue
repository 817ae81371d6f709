<script setup lang="ts">
import type { Component } from 'vue'
import {
  Download,
  Ellipsis,
  HardDriveDownload,
  Keyboard,
  MonitorSmartphone,
  Moon,
  Plus,
  Printer,
  Redo2,
  Sun,
  Undo2,
  Upload,
} from '@lucide/vue'
import { computed } from 'vue'
import TextInput from '~/shared/fields/TextInput.vue'
import { GUEST_KEY, isUnsent, secondScreen } from '~/stores/second-screen'
import { useSessionStore } from '~/stores/session'
import { unlogged } from '~/stores/unlogged'
import PopUp from '~/shared/ui/PopUp.vue'
import StripSelect from './StripSelect.vue'

/** The session’s name, whether it is kept, and what can be done with it as a whole; on a phone its strip stands beside it. */
const props = defineProps<{ dark: boolean; canLink: boolean; withStrip: boolean }>()
const emit = defineEmits<{
  exportFile: []
  link: []
  importFile: []
  keys: []
  theme: []
  print: []
  addStrip: []
  share: []
}>()
const store = useSessionStore()

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
/** Devices that show this session, where others do. */
const devices = computed(() => (secondScreen.value?.state === 'joined' ? secondScreen.value.members.length : 0))
const isKept = computed(() => !store.trouble && !store.gone && unlogged.value === 0)
const state = computed(() => {
  // A guest’s copy is kept by the device that it comes from.
  if (store.key === GUEST_KEY)
    return secondScreen.value?.state === 'joined' && !isUnsent.value ? 'shared' : 'not connected'
  if (!isKept.value) return 'not kept'
  if (store.saving) return 'saving…'
  return store.savedAt ? `saved ${clock.format(store.savedAt)}` : ''
})
const rename = (name: string) => store.edit('Rename the session', (session) => ({ ...session, name }))

interface Tool {
  words: string
  /** Whether the words stand beside the icon where there is room. */
  told: boolean
  title: string
  icon: Component
  run: () => void
}
const tools = computed((): Tool[] => [
  ...(props.withStrip
    ? [{ words: 'Add a strip', told: true, title: 'Add a strip (A)', icon: Plus, run: () => emit('addStrip') }]
    : []),
  {
    words: 'Export',
    told: true,
    title: 'Export the session to a file (E)',
    icon: Download,
    run: () => emit('exportFile'),
  },
  ...(props.canLink
    ? [
        {
          words: 'Keep in a file',
          told: false,
          title: 'Keep this session in a file on disk too, written after each change',
          icon: HardDriveDownload,
          run: () => emit('link'),
        },
      ]
    : []),
  {
    words: 'Import',
    told: true,
    title: 'Import a session file (I); or drop it, or paste it',
    icon: Upload,
    run: () => emit('importFile'),
  },
  {
    words: devices.value > 1 ? `${devices.value} devices` : 'Open on another device',
    told: devices.value > 1,
    title: 'Open this session on another device (Q)',
    icon: MonitorSmartphone,
    run: () => emit('share'),
  },
  { words: 'Print', told: false, title: 'Print this path (P)', icon: Printer, run: () => emit('print') },
  {
    words: 'Change the theme',
    told: false,
    title: props.dark ? 'Drawing office (T)' : 'Control room (T)',
    icon: props.dark ? Sun : Moon,
    run: () => emit('theme'),
  },
  { words: 'Keys', told: false, title: 'Keys (?)', icon: Keyboard, run: () => emit('keys') },
])
function choose(tool: Tool, close: () => void) {
  close()
  tool.run()
}
</script>

<template>
  <header class="flex items-center gap-x-3 px-3 py-1 card:flex-wrap card:px-5 card:py-2">
    <h1 class="min-w-20 grow text-[17px] max-card:basis-0">
      <TextInput class="w-full" :value="store.session?.name ?? ''" label="Name of the session" :commit="rename" />
    </h1>
    <StripSelect v-if="withStrip" class="min-w-20 grow basis-0 font-semibold" />
    <span
      class="shrink-0 text-muted"
      :class="{ 'sr-only': withStrip && isKept }"
      role="status"
      :title="store.copyTrouble ?? undefined"
      data-saved
      >{{ state }}</span
    >
    <div class="ml-auto flex shrink-0 items-center card:gap-3">
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
      <button
        v-for="tool in tools"
        :key="tool.words"
        type="button"
        class="tool max-card:hidden!"
        :title="tool.title"
        :aria-label="tool.told ? undefined : tool.words"
        @click="tool.run"
      >
        <component :is="tool.icon" class="size-4" aria-hidden="true" /><template v-if="tool.told">{{
          tool.words
        }}</template>
      </button>
      <PopUp
        class="card:hidden"
        label="The session and the page"
        takes-focus
        button-class="tool"
        panel-class="w-52 py-1"
      >
        <template #button><Ellipsis class="size-4" aria-hidden="true" /></template>
        <template #default="{ close }">
          <button
            v-for="tool in tools"
            :key="tool.words"
            type="button"
            class="flex min-h-11 w-full items-center gap-3 px-4 text-left hover:bg-change hover:text-on-change"
            @click="choose(tool, close)"
          >
            <component :is="tool.icon" class="size-4" aria-hidden="true" />{{ tool.words }}
          </button>
        </template>
      </PopUp>
    </div>
  </header>
</template>

<style scoped>
:deep(.tool),
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
