<script setup lang="ts">
import { ChevronLeft, ChevronRight, Plus } from '@lucide/vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useViewStore } from '~/stores/view'
import StripSelect from './StripSelect.vue'

/** The strips where there is no room for their list: the one shown, the ones beside it, all in a menu. */
const view = useViewStore()
const chain = useChainEdit()
</script>

<template>
  <nav v-if="view.strip" class="flex items-center gap-1 border-b border-line px-2 py-1" aria-label="Strips">
    <button type="button" class="icon-button" aria-label="Previous strip" @click="view.step(-1)">
      <ChevronLeft class="size-5" aria-hidden="true" />
    </button>
    <StripSelect class="min-w-0 grow font-semibold" />
    <button type="button" class="icon-button" aria-label="Next strip" @click="view.step(1)">
      <ChevronRight class="size-5" aria-hidden="true" />
    </button>
    <button type="button" class="icon-button" aria-label="Add a strip" @click="chain.addingStrip.value = true">
      <Plus class="size-5" aria-hidden="true" />
    </button>
  </nav>
</template>
