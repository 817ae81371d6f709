<script setup lang="ts">
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, nextTick, ref } from 'vue'
import { useColorMode, useRouter } from '#imports'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useExchange } from '~/composables/use-exchange'
import { usePlanGesture } from '~/composables/use-plan-gesture'
import type { Shortcut } from '~/composables/use-shortcuts'
import { isTyping, useShortcuts } from '~/composables/use-shortcuts'
import { useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import NoticeBar from './NoticeBar.vue'
import PlaceRail from './PlaceRail.vue'
import SessionHeader from './SessionHeader.vue'
import VerdictLine from './VerdictLine.vue'

// What is not on the first screen is fetched when it is first wanted.
const KeysDialog = defineAsyncComponent(() => import('./KeysDialog.vue'))
const PasteDialog = defineAsyncComponent(() => import('./PasteDialog.vue'))
const StripDialog = defineAsyncComponent(() => import('~/components/path/StripDialog.vue'))
const PrintSheet = defineAsyncComponent(() => import('~/components/path/PrintSheet.vue'))

/** What surrounds every place: the rail, the open session, the verdict, the notices and the keys. */
const store = useSessionStore()
const view = useViewStore()
const library = useLibraryStore()
const router = useRouter()
const exchange = useExchange()
const plan = usePlanGesture()
const chain = useChainEdit()
const theme = useColorMode()

const dark = computed(() => theme.value === 'dark')
const keysOpen = ref(false)
const importOpen = ref(false)
const dropping = ref(false)
const onPaper = useMediaQuery('print')

const startNew = async () => {
  await router.push(`/path/${await library.startNew()}`)
}
const changeTheme = () => {
  theme.preference = dark.value ? 'light' : 'dark'
}
const printed = ref(false)
/** The sheet has to be there before the browser lays out the paper. */
async function print() {
  printed.value = true
  await import('~/components/path/PrintSheet.vue')
  await nextTick()
  window.print()
}
const focusOn = (selector: string) => document.querySelector<HTMLElement>(selector)?.focus()

const shortcuts: Shortcut[] = [
  { keys: ['Ctrl+Z'], does: 'Undo', run: store.undo },
  { keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], does: 'Redo', run: store.redo },
  { keys: ['['], does: 'Previous strip', run: () => view.step(-1) },
  { keys: [']'], does: 'Next strip', run: () => view.step(1) },
  { keys: ['G'], does: 'Go to the gain', run: () => focusOn('[data-gain]') },
  { keys: ['↑', '↓'], does: 'Gain, a step; Page keys 6 dB, Home and End to the ends' },
  { keys: ['S'], does: 'Set this strip for me', run: () => plan.apply('strip') },
  { keys: ['V'], does: 'Read the section another way', run: view.nextReading },
  {
    keys: ['A'],
    does: 'Add a strip',
    run: () => {
      chain.addingStrip.value = true
    },
  },
  { keys: ['Alt+←', 'Alt+→'], does: 'Move the stage that has the focus' },
  { keys: ['Insert', 'Delete'], does: 'Put a stage behind the one that has the focus; take it out' },
  { keys: ['1'], does: 'Path', run: () => router.push(`/path/${store.key ?? ''}`) },
  { keys: ['2'], does: 'Timing', run: () => router.push(`/timing/${store.key ?? ''}`) },
  { keys: ['3'], does: 'Monitoring', run: () => router.push(`/monitoring/${store.key ?? ''}`) },
  { keys: ['4'], does: 'Bench', run: () => router.push(`/bench/${store.key ?? ''}`) },
  { keys: ['H'], does: 'Gear shelf', run: () => router.push('/shelf') },
  { keys: ['N'], does: 'New session', run: startNew },
  { keys: ['O'], does: 'Sessions', run: () => router.push('/sessions') },
  { keys: ['E'], does: 'Export', run: exchange.exportOpen },
  {
    keys: ['I'],
    does: 'Import',
    run: () => {
      importOpen.value = true
    },
  },
  { keys: ['P'], does: 'Print this path', run: print },
  { keys: ['T'], does: 'Change the theme', run: changeTheme },
  {
    keys: ['?'],
    does: 'These keys',
    run: () => {
      keysOpen.value = true
    },
  },
  { keys: ['Esc'], does: 'Take back a drag or what is being typed; close a dialog' },
]
useShortcuts(shortcuts)

const carriesFiles = (event: DragEvent) => [...(event.dataTransfer?.types ?? [])].includes('Files')
useEventListener(window, 'dragover', (event) => {
  if (!carriesFiles(event)) return
  event.preventDefault()
  dropping.value = true
})
useEventListener(window, 'dragleave', (event) => {
  if (event.relatedTarget === null) dropping.value = false
})
useEventListener(window, 'drop', async (event) => {
  if (!carriesFiles(event)) return
  event.preventDefault()
  dropping.value = false
  const file = event.dataTransfer?.files[0]
  if (file) await exchange.importFile(file)
})
useEventListener(window, 'paste', async (event) => {
  if (isTyping(event.target)) return
  const file = event.clipboardData?.files[0]
  const text = event.clipboardData?.getData('text/plain').trim()
  if (file) await exchange.importFile(file)
  else if (text) await exchange.importText('Pasted text', text)
})
</script>

<template>
  <div class="flex h-full min-h-0 print:block">
    <PlaceRail />
    <div class="flex min-h-0 min-w-0 grow flex-col overflow-y-auto print:hidden">
      <template v-if="store.session">
        <SessionHeader
          :dark="dark"
          @export-file="exchange.exportOpen"
          @import-file="importOpen = true"
          @keys="keysOpen = true"
          @theme="changeTheme"
          @print="print"
        />
        <VerdictLine />
      </template>
      <NoticeBar />
      <main class="flex min-h-0 grow flex-col">
        <slot
          :start-new="startNew"
          :import-file="
            () => {
              importOpen = true
            }
          "
        />
      </main>
    </div>
    <PrintSheet v-if="store.session && (printed || onPaper)" class="hidden print:block" />
    <div
      v-if="dropping"
      class="pointer-events-none fixed inset-3 z-50 flex items-center justify-center border-2 border-dashed border-change bg-sheet/85 text-lg font-semibold"
    >
      Drop the session file to open it
    </div>
    <KeysDialog v-if="keysOpen" :shortcuts="shortcuts" @close="keysOpen = false" />
    <StripDialog v-if="chain.addingStrip.value" />
    <PasteDialog v-if="importOpen" @close="importOpen = false" />
  </div>
</template>
