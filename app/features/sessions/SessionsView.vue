<script setup lang="ts">
import { format } from 'date-fns'
import { computed, onMounted, onUnmounted, ref, shallowRef } from 'vue'
import { useRouter } from '#imports'
import AsideNotice from '~/shared/ui/AsideNotice.vue'
import { saveFile } from '~/composables/file-access'
import { useBackup } from './use-backup'
import { sessionOrders, useSessionList } from './use-session-list'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import type { AsideRow, SessionSummary } from '~/stores/library'
import { RESTORABLE_DAYS, useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'
import SessionItem from './SessionItem.vue'

/** All sessions of this browser: open, rename, duplicate, delete and bring back. */
const emit = defineEmits<{ startNew: []; importFile: [] }>()
const library = useLibraryStore()
const store = useSessionStore()
const backup = useBackup()
const router = useRouter()
const trouble = ref<string | null>(null)
const list = useSessionList(
  () => library.kept,
  () => store.copyNow(),
)
const chosenKeys = computed(() => list.chosen.value.map(({ key }) => key))
const justDeleted = ref<readonly SessionSummary[]>([])
let stop = () => {}

async function openDemo() {
  await router.push(`/path/${await library.openDemo()}`)
}
async function duplicate(key: string) {
  const copy = await library.duplicate(key)
  if (copy) await router.push(`/path/${copy}`)
}
async function remove(rows: readonly SessionSummary[]) {
  const gone: SessionSummary[] = []
  for (const row of rows) if (await library.remove(row.key)) gone.push(row)
  justDeleted.value = gone
}
const removeChosen = () => remove(list.chosen.value.filter((row) => !library.isNewer(row)))
async function restore(keys: readonly string[]) {
  for (const key of keys) if (!(await library.restore(key))) return
  justDeleted.value = []
}
async function erase(keys: readonly string[]) {
  await library.erase(keys)
  justDeleted.value = []
}
async function rename(key: string, name: string) {
  trouble.value = await library.rename(key, name)
}

const replaced = shallowRef<AsideRow[]>([])
async function lookForReplaced() {
  replaced.value = await library.replaced()
}
async function dropReplaced({ number }: AsideRow) {
  if (number !== undefined && (await library.dropReplaced(number))) await lookForReplaced()
}
const newerDatabase = ref(false)
/** Of a database that a newer version made, everything can still be taken along. */
const saveAll = async () => {
  const file = await library.rawFile()
  if (file) await saveFile(file, 'application/json', 'remetra-as-found.json', 'remetra-backup')
}

onMounted(async () => {
  void backup.look()
  void lookForReplaced()
  stop = library.watch()
  newerDatabase.value = await library.isNewerDatabase()
})
onUnmounted(() => stop())
</script>

<template>
  <div class="mx-auto w-full max-w-4xl px-3 py-5 card:px-6">
    <div class="flex flex-wrap items-center gap-3 border-b border-ink pb-2">
      <h2 class="grow text-lg">Sessions in this browser</h2>
      <button type="button" class="push-main" @click="emit('startNew')">Start a new one</button>
      <button type="button" class="push" @click="emit('importFile')">Import…</button>
      <button type="button" class="push" @click="openDemo">Open the demo</button>
      <button type="button" class="push" @click="backup.save">Back up everything</button>
      <button type="button" class="push" @click="backup.restore">Restore a backup…</button>
    </div>
    <p v-if="backup.told.value" role="status" class="mt-2 text-muted" data-backup-told>{{ backup.told.value }}</p>
    <div v-if="backup.isDue.value" role="status" class="plate mt-2 flex flex-wrap gap-3 p-3" data-backup-due>
      <p class="grow">The last backup of what this browser keeps is older than a month, or there is none.</p>
      <button type="button" class="push" @click="backup.save">Back up everything</button>
      <button type="button" class="push" @click="backup.later.value = true">Later</button>
    </div>
    <div v-if="backup.refusal.value" role="alert" class="plate mt-2 border-ceiling! p-3" data-notice="backup-refused">
      <p>
        <strong>“{{ backup.refusal.value.name }}” was not restored; nothing was changed.</strong>
        <button type="button" class="action" @click="backup.refusal.value = null">Close</button>
      </p>
      <ul class="mt-1 max-h-40 list-disc overflow-y-auto pl-5">
        <li v-for="(fault, i) in backup.refusal.value.faults" :key="i">
          <code v-if="fault.path" class="figure">{{ fault.path }}</code> {{ fault.message }}
        </li>
      </ul>
    </div>
    <p v-if="trouble ?? library.trouble" role="alert" class="mt-2 text-ceiling">{{ trouble ?? library.trouble }}</p>
    <div v-if="justDeleted.length > 0" role="status" class="plate mt-2 flex items-baseline gap-3 px-3 py-2">
      {{
        justDeleted.length === 1
          ? `“${justDeleted[0]?.name}” was deleted.`
          : `${justDeleted.length} sessions were deleted.`
      }}
      <button type="button" class="action" @click="restore(justDeleted.map(({ key }) => key))">Undo</button>
    </div>
    <div v-if="library.vanished" role="alert" class="plate mt-2 space-y-2 p-3" data-notice="vanished">
      <p>
        <strong
          >{{ library.vanished.count }} {{ library.vanished.count === 1 ? 'session was' : 'sessions were' }} kept in
          this browser, and its database is empty now.</strong
        >
        The browser cleared it, or its disk was full.
      </p>
      <p v-if="library.vanished.copies.length > 0">
        Of {{ library.vanished.copies.length }} there is a second copy, with the last state and without the steps of
        undo: {{ library.vanished.copies.map(({ session }) => session.name).join(', ') }}.
      </p>
      <p v-else>There is no second copy of them here. Import a backup or an exported file, if you have one.</p>
      <p class="flex gap-3">
        <button v-if="library.vanished.copies.length > 0" type="button" class="push-main" @click="library.recover">
          Bring them back
        </button>
        <button type="button" class="push" @click="library.forgetVanished">Go on without</button>
      </p>
    </div>
    <AsideNotice v-for="row in replaced" :key="row.number" :items="[row]" of="session">
      <button type="button" class="action text-ceiling" @click="dropReplaced(row)">Delete permanently</button>
    </AsideNotice>
    <div v-if="newerDatabase" role="alert" class="plate mt-2 p-3" data-notice="newer-database">
      <button type="button" class="push" @click="saveAll">Export everything as found</button>
    </div>
    <p v-if="library.kept.length === 0" class="mt-6 text-muted">
      No session is kept here. Start a new one, import a file, or open the demo to look around.
    </p>
    <div v-if="library.kept.length > 1" class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2" data-list-tools>
      <template v-if="list.isMany.value">
        <input
          v-model="list.search.value"
          type="search"
          class="min-w-48 border border-rule bg-paper px-2 py-1"
          placeholder="Search names and strips"
          aria-label="Search the sessions"
        />
        <ChoiceBar
          :options="sessionOrders"
          :chosen="list.order.value"
          label="Order of the sessions"
          @choose="(order) => (list.order.value = order)"
        />
      </template>
      <label class="flex min-h-6 items-center gap-2"
        ><input
          type="checkbox"
          :checked="list.chosen.value.length > 0 && list.chosen.value.length === list.shown.value.length"
          @change="list.chooseAll(($event.target as HTMLInputElement).checked)"
        />
        Choose all</label
      >
      <template v-if="list.chosen.value.length > 0">
        <button type="button" class="push" @click="backup.saveChosen(chosenKeys)">
          Export {{ list.chosen.value.length }} chosen
        </button>
        <button type="button" class="push" @click="removeChosen">Delete {{ list.chosen.value.length }} chosen</button>
      </template>
    </div>
    <p v-if="library.kept.length > 0 && list.shown.value.length === 0" class="mt-4 text-muted">
      No session has “{{ list.search.value }}” in its name or its strips.
    </p>
    <ul>
      <SessionItem
        v-for="row in list.shown.value"
        :key="row.key"
        :row="row"
        :about="list.aboutOf(row)"
        :newer="library.isNewer(row)"
        :open="row.key === store.key"
        :choosable="library.kept.length > 1"
        :chosen="list.chosen.value.includes(row)"
        @rename="(name) => rename(row.key, name)"
        @duplicate="duplicate(row.key)"
        @remove="remove([row])"
        @choose="(on) => list.choose(row.key, on)"
      />
    </ul>
    <details v-if="library.deleted.length > 0" class="mt-6">
      <summary class="cursor-pointer text-muted">
        {{ library.deleted.length }} deleted, kept until Remetra was opened on {{ RESTORABLE_DAYS }} more days
      </summary>
      <ul>
        <li
          v-for="row in library.deleted"
          :key="row.key"
          class="flex flex-wrap items-baseline gap-4 border-b border-line py-1.5"
        >
          <span class="grow">{{ row.name }}</span><span class="figure text-muted">{{
            format(row.deletedAt, 'yyyy-MM-dd HH:mm')
          }}</span>
          <button type="button" class="action" @click="restore([row.key])">
            Restore<span class="sr-only"> {{ row.name }}</span>
          </button>
          <button type="button" class="action text-ceiling" @click="erase([row.key])">
            Delete permanently<span class="sr-only"> {{ row.name }}</span>
          </button>
        </li>
      </ul>
      <button
        v-if="library.deleted.length > 1"
        type="button"
        class="action mt-2 text-ceiling"
        @click="erase(library.deleted.map(({ key }) => key))"
      >
        Delete them all permanently, to free space
      </button>
    </details>
  </div>
</template>
