<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Ellipsis } from '@lucide/vue'
import { autoUpdate, flip, shift, useFloating } from '@floating-ui/vue'
import { computed, ref } from 'vue'
import type { ResolvedStage } from '#core/chain/resolve'
import { useChainEdit } from '~/composables/use-chain-edit'

/** What can be done with a stage as a whole. */
const props = defineProps<{ stage: ResolvedStage }>()
const chain = useChainEdit()

const anchor = ref(null)
const panel = ref(null)
const { floatingStyles } = useFloating(anchor, panel, {
  placement: 'bottom-end',
  strategy: 'fixed',
  middleware: [flip(), shift({ padding: 8 })],
  whileElementsMounted: autoUpdate,
})

const actions = computed(() => [
  { words: 'Replace…', run: () => chain.openReplace(props.stage.id) },
  { words: 'Insert before it…', run: () => chain.openInsert(chain.indexOf(props.stage.id)) },
  { words: 'Insert behind it…', run: () => chain.openInsert(chain.indexOf(props.stage.id) + 1) },
  { words: 'Move towards the source', run: () => chain.move(props.stage.id, -1) },
  { words: 'Move towards the recorder', run: () => chain.move(props.stage.id, 1) },
  {
    words: props.stage.driven ? 'Not overdriven on purpose' : 'Overdriven on purpose',
    run: () => chain.toggleDriven(props.stage.id),
  },
  {
    words: 'Paste a specification sheet…',
    run: () => {
      chain.pasting.value = props.stage.id
    },
  },
  { words: 'Keep on the shelf', run: () => chain.keepOnShelf(props.stage.gear) },
  ...(props.stage.gear.shelf
    ? [{ words: 'Update from the shelf…', run: () => chain.openUpdate(props.stage.gear) }]
    : []),
  { words: 'Remove', run: () => chain.remove(props.stage.id) },
])
function choose(action: { run: () => void }, close: () => void) {
  close()
  action.run()
}
</script>

<template>
  <Popover class="print:hidden">
    <PopoverButton ref="anchor" class="icon-button -m-1" :aria-label="`What to do with ${stage.gear.name}`"
      ><Ellipsis class="size-4" aria-hidden="true"
    /></PopoverButton>
    <PopoverPanel
      ref="panel"
      v-slot="{ close }"
      focus
      :style="floatingStyles"
      class="plate z-40 w-52 py-1 text-[13px] text-ink shadow-lg"
    >
      <button
        v-for="action in actions"
        :key="action.words"
        type="button"
        class="block w-full px-3 py-1 text-left hover:bg-change hover:text-on-change focus:bg-change focus:text-on-change"
        @click="choose(action, close)"
      >
        {{ action.words }}
      </button>
    </PopoverPanel>
  </Popover>
</template>
