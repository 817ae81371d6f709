<script setup lang="ts">
import { lateComponent } from '~/shared/ui/late-component'
import { latePart } from '~/stores/late-part'
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { computed, nextTick, onMounted, provide, ref, watch, watchEffect } from 'vue'
import { useColorMode, useRouter } from '#imports'
import { places } from '~/composables/places'
import { useDataSheets } from '~/composables/use-data-sheets'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useExplaining } from '~/composables/use-explaining'
import { useExchange } from './use-exchange'
import { usePlanGesture } from '~/composables/use-plan-gesture'
import { PRINT } from '~/composables/use-printing'
import type { Shortcut } from '~/composables/use-shortcuts'
import { isTyping, useShortcuts } from '~/composables/use-shortcuts'
import { useKeepingGuard } from './use-keeping-guard'
import { useNewVersion } from './use-new-version'
import { useStripStages } from '~/composables/use-strip-stages'
import { useMeasuredSheets } from '~/stores/measured-sheets'
import { GUEST_KEY, follows, hasOpenedRoom, secondScreen, shownPlace } from '~/stores/second-screen'
import { firstPicture, pictureStands } from '~/stores/first-picture'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import PlaceRail from './PlaceRail.vue'
import StripBar from './StripBar.vue'
import SessionHeader from './SessionHeader.vue'
import VerdictLine from './VerdictLine.vue'

// What is not on the first screen is fetched when it is first wanted.
const FileLinkNotice = lateComponent(() => import('./FileLinkNotice.vue'))
const NoticeBar = lateComponent(() => import('./NoticeBar.vue'))
const StartDialog = lateComponent(() => import('~/features/start/StartDialog.vue'))
const KeysDialog = lateComponent(() => import('./KeysDialog.vue'))
const PasteDialog = lateComponent(() => import('./PasteDialog.vue'))
const ExplainDialog = lateComponent(() => import('~/shared/explaining/ExplainDialog.vue'))
const SecondScreenDialog = lateComponent(() => import('~/features/second-screen/SecondScreenDialog.vue'))
const StripDialog = lateComponent(() => import('~/features/path/StripDialog.vue'))
const PrintSheet = lateComponent(() => import('~/features/path/PrintSheet.vue'))
const LogPrint = lateComponent(() => import('~/features/log/LogPrint.vue'))
const SheetPrint = lateComponent(() => import('~/features/bench/SheetPrint.vue'))
const RunSheetPrint = lateComponent(() => import('~/features/soundcheck/RunSheetPrint.vue'))

/** What surrounds every place: the rail, the open session, the verdict, the notices and the keys. */
const store = useSessionStore()
const view = useViewStore()
const measuredSheets = useMeasuredSheets()
const router = useRouter()
const exchange = useExchange()
const plan = usePlanGesture()
const chain = useChainEdit()
const { isCompact } = useStripStages()
const explaining = useExplaining()
const sheets = useDataSheets()
const theme = useColorMode()

const PLACES: Record<string, string> = {
  ...Object.fromEntries(places.map(({ id, title }) => [id, title])),
  shelf: 'Gear shelf',
  sessions: 'Sessions',
}
/** The next way to read the section, and the focus into it: Tab leads to what can be done there. */
async function nextReading() {
  view.nextReading()
  await nextTick()
  focusOn('[data-reading]')
}
function addStrip() {
  chain.addingStrip.value = true
}
watchEffect(() => {
  shownPlace.value = router.currentRoute.value.path.split('/')[1] || 'path'
})
// After a reload this tab goes back into the room that it had opened.
watch(
  () => store.key,
  async (key) => {
    if (key !== null && key !== GUEST_KEY && hasOpenedRoom())
      (await latePart(() => import('~/sharing')))?.resumeSharing()
  },
)
const place = computed(() => PLACES[router.currentRoute.value.path.split('/')[1] ?? ''] ?? 'Path')
const version = useNewVersion()
/** What is told comes after what the page was opened for; a guest’s server may be gone by then. */
const hasPicture = ref(false)
void firstPicture.then(() => {
  hasPicture.value = true
})
const hasNotices = computed(() => hasPicture.value || router.currentRoute.value.params.key === GUEST_KEY)
// The section on Path says itself when it stands.
onMounted(() => {
  if (place.value !== 'Path') pictureStands()
})
const dark = computed(() => theme.value === 'dark')
const keysOpen = ref(false)
const importOpen = ref(false)
const sharing = ref(false)
const dropping = ref(false)
// Fetched once something is kept: the first picture does without it.
const canLink = typeof window !== 'undefined' && 'showSaveFilePicker' in window
const file = ref<{ choose: () => Promise<void> } | null>(null)
const onPaper = useMediaQuery('print')

const starting = ref(false)
const startNew = () => {
  starting.value = true
}
const changeTheme = () => {
  theme.preference = dark.value ? 'light' : 'dark'
}
/** Whether the sheet for paper stands ready: it is made when it is first asked for. */
const printed = ref(false)
/** Places with a sheet of their own for paper; elsewhere it is the path’s. */
const SHEETS: Record<string, () => Promise<unknown>> = {
  Log: () => import('~/features/log/LogPrint.vue'),
  Soundcheck: () => import('~/features/soundcheck/RunSheetPrint.vue'),
  Bench: () => import('~/features/bench/SheetPrint.vue'),
}
/** A measured sheet lies open on the Bench. */
const measured = computed(() => place.value === 'Bench' && measuredSheets.isShown)
/** The sheet has to be there before the browser lays out the paper. */
async function print() {
  printed.value = true
  const own = place.value !== 'Bench' || measured.value ? SHEETS[place.value] : undefined
  if (!(await latePart<unknown>(own ?? (() => import('~/features/path/PrintSheet.vue'))))) return
  await nextTick()
  window.print()
}
provide(PRINT, print)
/** Focuses the first of some parts that stands. */
const focusOn = (...selectors: string[]) =>
  selectors
    .map((each) => document.querySelector<HTMLElement>(each))
    .find(Boolean)
    ?.focus()

const shortcuts: Shortcut[] = [
  { keys: ['Ctrl+Z'], does: 'Undo', run: store.undo },
  { keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], does: 'Redo', run: store.redo },
  { keys: ['['], does: 'Previous strip', run: () => view.step(-1) },
  { keys: [']'], does: 'Next strip', run: () => view.step(1) },
  { keys: ['G'], does: 'Go to the gain', at: 'Path', run: () => focusOn('[data-gain]', '[data-gain-handle]') },
  { keys: ['S'], does: 'Set this strip for me', at: 'Path', run: () => plan.apply('strip') },
  {
    keys: ['D'],
    does: 'Data sheets: unfold them all, or fold them',
    at: 'Path',
    when: () => place.value === 'Path',
    run: () => sheets.toggleAll(store.session?.gear.map(({ kind }) => kind) ?? []),
  },
  { keys: ['V'], does: 'Next view of the section', at: 'Path', run: nextReading },
  {
    keys: ['W'],
    does: 'Why: what the headroom is made of',
    run: () => {
      const { tightest } = view.evaluated ?? {}
      if (tightest) explaining.explain('headroom', tightest.stage)
    },
  },
  { keys: ['U'], does: 'Show or hide the ± of the section’s edges', at: 'Path', run: view.toggleSpread },
  { keys: ['A'], does: 'Add a strip', run: addStrip },
  {
    keys: ['M'],
    does: 'Direct monitoring, software monitoring, both',
    at: 'Monitoring',
    run: () => place.value === 'Monitoring' && focusOn('[role="radiogroup"] [aria-checked="true"]'),
  },
  ...places.map(({ id, title, key }) => ({
    keys: [key],
    does: title,
    run: () => void router.push(`/${id}/${store.key ?? ''}`),
  })),
  { keys: ['H'], does: 'Gear shelf', run: () => router.push('/shelf') },
  { keys: ['N'], does: 'New session', run: startNew },
  { keys: ['O'], does: 'Sessions', run: () => router.push('/sessions') },
  { keys: ['E'], does: 'Export', run: exchange.exportOpen },
  {
    keys: ['Q'],
    does: 'Open on another device',
    run: () => {
      sharing.value = store.session !== null
    },
  },
  {
    keys: ['F'],
    does: 'Follow: all devices stay on one step',
    when: () => secondScreen.value !== null,
    run: () => {
      follows.value = !follows.value
    },
  },
  {
    keys: ['I'],
    does: 'Import',
    run: () => {
      importOpen.value = true
    },
  },
  { keys: ['P'], does: 'Print this path', at: 'Path', run: print },
  { keys: ['T'], does: 'Change the theme', run: changeTheme },
  {
    keys: ['?'],
    does: 'These keys',
    run: () => {
      keysOpen.value = true
    },
  },
]
useShortcuts(shortcuts)

useKeepingGuard()

/** A PDF is a data sheet; so is a text that is no object. */
const isDataSheet = (brought: string | File) =>
  typeof brought === 'string' ? /^[^[{\uFEFF]/.test(brought) : /\.pdf$/i.test(brought.name)
/** What was dropped or pasted goes to the strip in hand, or is imported. */
async function bring(brought: string | File) {
  const stages = view.strip?.stages ?? []
  const stage = stages.find(({ id }) => id === view.stage) ?? stages[0]
  if (place.value === 'Path' && stage && isDataSheet(brought)) chain.pasting.value = { stage: stage.id, brought }
  else if (typeof brought === 'string') await exchange.importText('Pasted text', brought)
  else await exchange.importFile(brought)
}

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
  if (file) await bring(file)
})
useEventListener(window, 'paste', async (event) => {
  if (isTyping(event.target)) return
  const file = event.clipboardData?.files[0]
  const text = event.clipboardData?.getData('text/plain').trim()
  if (file) await bring(file)
  else if (text) await bring(text)
})
</script>

<template>
  <div class="flex h-full min-h-0 flex-col-reverse rail:flex-row print:block">
    <PlaceRail />
    <div class="flex min-h-0 min-w-0 grow flex-col overflow-y-auto print:hidden">
      <template v-if="store.session">
        <SessionHeader
          :dark="dark"
          :can-link="file !== null"
          :with-strip="isCompact && place !== 'Trainer'"
          @export-file="exchange.exportOpen"
          @link="file?.choose()"
          @import-file="importOpen = true"
          @keys="keysOpen = true"
          @theme="changeTheme"
          @print="print"
          @add-strip="addStrip"
          @share="sharing = true"
        />
        <!-- The trainer is about chains of its own. -->
        <template v-if="place !== 'Trainer'">
          <VerdictLine />
          <StripBar v-if="!isCompact" class="rail:hidden" />
        </template>
      </template>
      <header v-else class="sr-only"><h1>Remetra</h1></header>
      <FileLinkNotice v-if="canLink && store.savedAt && store.key !== GUEST_KEY" ref="file" />
      <NoticeBar v-if="hasNotices" :version="version" />
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
    <template v-if="store.session && (printed || onPaper)">
      <LogPrint v-if="place === 'Log'" class="hidden print:block" />
      <RunSheetPrint v-else-if="place === 'Soundcheck'" class="hidden print:block" />
      <SheetPrint v-else-if="measured" class="hidden print:block" />
      <PrintSheet v-else class="hidden print:block" />
    </template>
    <div
      v-if="dropping"
      class="pointer-events-none fixed inset-3 z-50 flex items-center justify-center border-2 border-dashed border-change bg-sheet/85 text-lg font-semibold"
    >
      Drop the session file to open it
    </div>
    <KeysDialog v-if="keysOpen" :shortcuts="shortcuts" :place="place" @close="keysOpen = false" />
    <StartDialog v-if="starting" @close="starting = false" />
    <StripDialog v-if="chain.addingStrip.value" />
    <SecondScreenDialog v-if="sharing" @close="sharing = false" />
    <ExplainDialog v-if="explaining.asked.value.length > 0" />
    <PasteDialog v-if="importOpen" @close="importOpen = false" />
  </div>
</template>
