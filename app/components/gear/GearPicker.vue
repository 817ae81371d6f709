<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { NuxtLink } from '#components'
import type { Gear } from '#core/session'
import { kinds } from '#core/session'
import ModalDialog from '~/components/shell/ModalDialog.vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useSessionStore } from '~/stores/session'
import { useShelfStore } from '~/stores/shelf'

/** Choosing a box for a place in the strip, from the session and from the shelf; only what can stand there is listed. */
const chain = useChainEdit()
const store = useSessionStore()
const shelf = useShelfStore()
const search = ref('')
onMounted(shelf.open)

const matches = (gear: Gear) =>
  chain.portFor(gear) !== null &&
  `${gear.name} ${kinds[gear.kind].words.title}`.toLowerCase().includes(search.value.trim().toLowerCase())
const lists = computed(() => [
  { from: 'session' as const, title: 'In this session', items: (store.session?.gear ?? []).filter(matches) },
  { from: 'shelf' as const, title: 'On the shelf', items: shelf.items.filter(matches) },
])
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
    <div class="w-[34rem] pt-3">
      <label class="block"
        >Search <input v-model="search" type="search" class="ml-2 w-64 border border-rule bg-paper px-2 py-1"
      /></label>
      <p class="mt-1 text-muted">
        Listed is what {{ wanted }}: it can stand here.
        <NuxtLink class="action" to="/shelf" @click="chain.picking.value = null">Enter other gear on the shelf</NuxtLink
        >.
      </p>
      <div class="mt-2 h-80 overflow-y-auto" tabindex="0" aria-label="Gear that fits">
        <template v-for="list in lists" :key="list.from">
          <h3 v-if="list.items.length > 0" class="mt-2 border-b border-line text-muted">{{ list.title }}</h3>
          <ul>
            <li v-for="item in list.items" :key="item.id">
              <button
                type="button"
                class="flex w-full justify-between gap-4 px-1 py-1 text-left hover:bg-change-soft focus:bg-change-soft"
                :data-pick="item.id"
                @click="chain.pick(item, list.from)"
              >
                <span class="font-semibold">{{ item.name }}</span><span class="text-muted"
                  >{{ kinds[item.kind].words.title }}{{ chain.portFor(item) ? `, ${chain.portFor(item)}` : '' }}</span
                >
              </button>
            </li>
          </ul>
        </template>
        <p v-if="lists.every((list) => list.items.length === 0)" class="mt-3 text-muted">
          Nothing of that name fits here.
        </p>
      </div>
    </div>
  </ModalDialog>
</template>
