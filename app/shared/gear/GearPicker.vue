<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { NuxtLink } from '#components'
import type { Gear } from '#core/gear'
import { blankGear } from '#core/edits'
import { gearKinds, kinds, isProcessor } from '#core/gear'
import ModalDialog from '~/shared/ui/ModalDialog.vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useSessionStore } from '~/stores/session'
import { useShelfStore } from '~/stores/shelf'

/** Choosing a box for a place in the strip: from the session, from the shelf, or a blank one of a kind with usual figures. */
const chain = useChainEdit()
const store = useSessionStore()
const shelf = useShelfStore()
const search = ref('')
onMounted(shelf.open)

const title = (gear: Gear) => kinds[gear.kind].words.box ?? kinds[gear.kind].words.title
/** A box that has sections is looked for by what they are, an empty one by what it could hold. */
const also = (gear: Gear) =>
  isProcessor(gear) && gear.blocks.length > 0
    ? gear.blocks.map(({ type }) => type).join(' ')
    : (kinds[gear.kind].words.also ?? '')
/** Ports differ, so each is asked once and not at every keystroke. */
const fitting = computed(() => {
  const blanks = gearKinds.map((kind) => {
    const { box, title: plain } = kinds[kind].words
    return blankGear(kind, `my-${kind}`, `My ${(box ?? plain).toLowerCase()}`)
  })
  const lists = [
    { from: 'session' as const, title: 'In this session', items: store.session?.gear ?? [] },
    { from: 'shelf' as const, title: 'On the shelf', items: shelf.items },
    { from: 'blank' as const, title: 'Blank, with usual figures to be replaced by yours', items: blanks },
  ]
  return lists.map((list) => ({
    ...list,
    items: list.items.flatMap((gear) => {
      const port = chain.portFor(gear)
      return port === null ? [] : [{ gear, port }]
    }),
  }))
})
const lists = computed(() => {
  const words = search.value.trim().toLowerCase()
  return fitting.value.map((list) => ({
    ...list,
    items: list.items.filter(({ gear }) => `${gear.name} ${title(gear)} ${also(gear)}`.toLowerCase().includes(words)),
  }))
})
const first = computed(() => {
  const list = lists.value.find(({ items }) => items.length > 0)
  return list?.items[0] && { gear: list.items[0].gear, from: list.from }
})
function takeFirst() {
  if (first.value) chain.pick(first.value.gear, first.value.from)
}
const WANTED = {
  sound: 'takes sound',
  analogue: 'takes an analogue signal',
  digital: 'takes a digital signal',
} as const
const wanted = computed(() => (chain.needed.value === null ? 'is a source' : WANTED[chain.needed.value]))
</script>

<template>
  <ModalDialog
    :title="chain.picking.value?.do === 'replace' ? 'Replace by' : 'Insert'"
    closing="Cancel"
    @close="chain.picking.value = null"
  >
    <div class="max-w-full pt-3 card:w-[34rem]">
      <label class="block"
        >Search
        <input
          v-model="search"
          type="search"
          data-autofocus
          class="w-full border border-rule bg-paper px-2 py-1 card:ml-2 card:w-64"
          @keydown.enter.prevent="takeFirst"
      /></label>
      <p class="mt-1 text-muted">
        Listed is what {{ wanted }}: it fits here. Enter takes the first.
        <NuxtLink class="action" to="/shelf" @click="chain.picking.value = null">Enter other gear on the shelf</NuxtLink
        >.
      </p>
      <div class="mt-2 h-80 overflow-y-auto" tabindex="0" aria-label="Gear that fits">
        <template v-for="list in lists" :key="list.from">
          <h3 v-if="list.items.length > 0" class="mt-2 border-b border-line text-muted">{{ list.title }}</h3>
          <ul>
            <li v-for="{ gear, port } in list.items" :key="gear.id">
              <button
                type="button"
                class="flex w-full justify-between gap-4 px-1 py-1 text-left hover:bg-change-soft focus:bg-change-soft"
                :class="{ 'bg-change-soft': gear === first?.gear }"
                :data-pick="list.from === 'blank' ? `blank-${gear.kind}` : gear.id"
                @click="chain.pick(gear, list.from)"
              >
                <span class="font-semibold">{{ gear.name }}</span><span class="text-muted"
                  >{{ title(gear) }}{{ port ? `, ${port}` : '' }}</span
                >
              </button>
            </li>
          </ul>
        </template>
        <p v-if="!first" class="mt-3 text-muted">
          Nothing of that name fits behind the stage before it. Clear the search to see what fits.
        </p>
      </div>
    </div>
  </ModalDialog>
</template>
