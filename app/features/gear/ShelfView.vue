<script setup lang="ts">
import { Copy, Trash2 } from '@lucide/vue'
import { computed, nextTick, onMounted, ref } from 'vue'
import type { GearKind } from '#core/gear'
import { blankGear } from '#core/edits'
import { gearKinds, kinds } from '#core/gear'
import { useShelfExchange } from './use-shelf-exchange'
import { useShelfStore } from '~/stores/shelf'
import AsideNotice from '~/shared/ui/AsideNotice.vue'
import GearForm from './GearForm.vue'

/** The gear shelf: find a box, see its printed and measured figures, keep it, take it along. */
const shelf = useShelfStore()
const exchange = useShelfExchange()
const search = ref('')
const kind = ref<GearKind | ''>('')
const wanted = ref<string | null>(null)
const removed = ref<{ id: string; name: string } | null>(null)
onMounted(shelf.open)

const title = (each: GearKind) => kinds[each].words.box ?? kinds[each].words.title
const shown = computed(() =>
  shelf.items.filter(
    (item) =>
      (kind.value === '' || item.kind === kind.value) &&
      `${item.name} ${title(item.kind)} ${item.origin ?? ''}`.toLowerCase().includes(search.value.trim().toLowerCase()),
  ),
)
const selected = computed(() => shown.value.find((item) => item.id === wanted.value) ?? shown.value[0] ?? null)

async function add(event: Event) {
  const select = event.target as HTMLSelectElement
  const chosen = select.value as GearKind
  select.value = ''
  const [id] = await shelf.add([blankGear(chosen, `my-${chosen}`, `My ${title(chosen).toLowerCase()}`)])
  search.value = ''
  kind.value = ''
  wanted.value = id ?? null
  // Its name is what one types next.
  await nextTick()
  document.querySelector<HTMLInputElement>('[aria-label="Name of the item"]')?.select()
}
async function duplicate(id: string) {
  wanted.value = await shelf.duplicate(id)
}
async function remove(id: string, name: string) {
  if (await shelf.remove(id)) removed.value = { id, name }
}
async function restore() {
  if (removed.value && (await shelf.restore(removed.value.id))) removed.value = null
}
</script>

<template>
  <div class="flex grow flex-col px-3 pb-3 card:px-5 rail:min-h-0">
    <div class="flex flex-wrap items-center gap-3 border-b border-ink py-2">
      <h2 class="grow text-lg">Gear shelf</h2>
      <select class="push-main" aria-label="Add an item" value="" @change="add">
        <option value="">Add an item…</option>
        <option v-for="each in gearKinds" :key="each" :value="each">{{ title(each) }}</option>
      </select>
      <button type="button" class="push" @click="exchange.chooseFile">Import…</button>
      <button type="button" class="push" @click="exchange.save(shown, 'json')">Export as JSON</button>
      <button type="button" class="push" @click="exchange.save(shown, 'csv')">Export as CSV</button>
    </div>
    <AsideNotice :items="shelf.aside" of="shelf" />
    <p v-if="shelf.trouble" role="alert" class="mt-2 text-ceiling">{{ shelf.trouble }}</p>
    <div v-if="exchange.refusal.value" role="alert" class="plate mt-2 border-ceiling p-2" data-notice="gear-refused">
      <p>
        <strong>“{{ exchange.refusal.value.name }}” was not taken; nothing was changed.</strong>
        <button type="button" class="action" @click="exchange.refusal.value = null">Close</button>
      </p>
      <ul class="mt-1 max-h-32 list-disc overflow-y-auto pl-5">
        <li v-for="(fault, i) in exchange.refusal.value.faults" :key="i">
          <code v-if="fault.path" class="figure">{{ fault.path }}</code> {{ fault.message }}
        </li>
      </ul>
    </div>
    <p v-if="exchange.told.value" role="status" class="mt-2 text-muted">{{ exchange.told.value }}</p>
    <p v-if="removed" role="status" class="plate mt-2 flex gap-3 px-3 py-1.5">
      “{{ removed.name }}” was removed from the shelf.
      <button type="button" class="action" @click="restore">Undo</button>
    </p>
    <div class="grid grow gap-6 pt-3 rail:min-h-0 rail:grid-cols-[17rem_minmax(0,1fr)]">
      <div class="flex min-h-0 flex-col">
        <p class="flex gap-2">
          <input
            v-model="search"
            type="search"
            placeholder="Search"
            aria-label="Search the shelf"
            class="min-w-0 grow border border-rule bg-sheet px-2 py-1"
          />
          <select v-model="kind" aria-label="Kind" class="w-28 border border-rule bg-sheet">
            <option value="">every kind</option>
            <option v-for="each in gearKinds" :key="each" :value="each">{{ title(each) }}</option>
          </select>
        </p>
        <p class="py-1 text-xs text-muted">
          {{ shown.length }} of {{ shelf.items.length }}. Export takes what is listed.
        </p>
        <ul
          class="max-h-60 min-h-0 grow overflow-y-auto border-t border-line rail:max-h-none"
          tabindex="0"
          aria-label="Items"
        >
          <li v-for="item in shown" :key="item.id">
            <button
              type="button"
              class="block w-full border-b border-line px-2 py-1 text-left hover:bg-change-soft"
              :class="{ 'bg-sheet font-semibold': item.id === selected?.id }"
              :aria-current="item.id === selected?.id ? 'true' : undefined"
              :data-item="item.id"
              @click="wanted = item.id"
            >
              {{ item.name }}<span class="block text-xs font-normal text-muted">{{ title(item.kind) }}</span>
            </button>
          </li>
        </ul>
      </div>
      <div class="min-w-0 overflow-x-auto rail:min-h-0 rail:overflow-y-auto" tabindex="0" aria-label="The chosen item">
        <template v-if="selected">
          <p class="flex flex-wrap justify-end gap-3">
            <button type="button" class="action" @click="duplicate(selected.id)">
              <Copy class="inline size-3.5" aria-hidden="true" /> Duplicate
            </button>
            <button type="button" class="action" @click="remove(selected.id, selected.name)">
              <Trash2 class="inline size-3.5" aria-hidden="true" /> Remove from the shelf
            </button>
          </p>
          <GearForm :key="selected.id" :item="selected" />
        </template>
        <p v-else class="text-muted">No item matches. Clear the search, add an item, or import a gear file.</p>
      </div>
    </div>
  </div>
</template>
