<script setup lang="ts">
import { Ellipsis } from '@lucide/vue'
import { computed } from 'vue'
import type { ResolvedStage } from '#core/gear/stage'
import PopUp from '~/shared/ui/PopUp.vue'
import { useChainEdit } from '~/composables/use-chain-edit'

/** What can be done with a stage as a whole. */
const props = defineProps<{ stage: ResolvedStage }>()
const chain = useChainEdit()

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
    words: 'Read a data sheet…',
    run: () => {
      chain.pasting.value = { stage: props.stage.id, brought: null }
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
  <PopUp
    :label="`What to do with ${stage.gear.name}`"
    takes-focus
    button-class="icon-button -m-1"
    panel-class="w-52 py-1 text-[13px]"
  >
    <template #button><Ellipsis class="size-4" aria-hidden="true" /></template>
    <template #default="{ close }">
      <button
        v-for="action in actions"
        :key="action.words"
        type="button"
        class="block w-full px-3 py-1 text-left hover:bg-change hover:text-on-change focus:bg-change focus:text-on-change"
        @click="choose(action, close)"
      >
        {{ action.words }}
      </button>
    </template>
  </PopUp>
</template>
