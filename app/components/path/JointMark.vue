<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Check, OctagonX, TriangleAlert } from '@lucide/vue'
import { autoUpdate, flip, offset, shift, size, useFloating } from '@floating-ui/vue'
import { computed, ref } from 'vue'
import type { Joint } from '#core/chain/describe-joint'
import { useChainEdit } from '~/composables/use-chain-edit'
import FindingAction from './FindingAction.vue'

/** A joint between two stages: whether it fits, in a shape and in words, with the mend; and the place to insert something. */
const props = defineProps<{ joint: Joint; number: number }>()
const chain = useChainEdit()

const anchor = ref(null)
const panel = ref(null)
const { floatingStyles } = useFloating(anchor, panel, {
  placement: 'top',
  strategy: 'fixed',
  middleware: [
    offset(6),
    flip({ padding: 8 }),
    shift({ padding: 8 }),
    size({
      padding: 8,
      apply: ({ availableHeight, elements }) => {
        elements.floating.style.maxHeight = `${availableHeight}px`
      },
    }),
  ],
  whileElementsMounted: autoUpdate,
})
const state = computed(() => {
  if (props.joint.severity === 'stop') return { word: 'stop', icon: OctagonX, tone: 'text-ceiling border-ceiling' }
  if (props.joint.severity === 'caution')
    return { word: 'to see to', icon: TriangleAlert, tone: 'text-ceiling border-ceiling' }
  return { word: 'fits', icon: Check, tone: 'text-change border-rule' }
})
function insert(close: () => void) {
  close()
  chain.openInsert(props.number)
}
</script>

<template>
  <Popover class="absolute top-0 z-20 -translate-x-1/2 -translate-y-1/2 print:hidden">
    <PopoverButton
      ref="anchor"
      class="flex size-5 items-center justify-center rounded-full border bg-sheet"
      :class="state.tone"
      :aria-label="`Joint ${number}: ${state.word}`"
      :data-joint="joint.severity ?? 'fits'"
      ><component :is="state.icon" class="size-3" aria-hidden="true"
    /></PopoverButton>
    <PopoverPanel
      ref="panel"
      v-slot="{ close }"
      :style="floatingStyles"
      class="plate z-40 w-80 space-y-1.5 overflow-y-auto p-3 text-left shadow-lg"
    >
      <h3>Joint {{ number }}: {{ state.word }}</h3>
      <div
        v-for="finding in joint.findings"
        :key="finding.code + finding.message"
        class="border-l-2 pl-2"
        :class="finding.severity === 'note' ? 'border-rule' : 'border-ceiling'"
      >
        <p>{{ finding.message }}</p>
        <p class="text-muted">{{ finding.action }} <FindingAction :finding="finding" @done="close()" /></p>
      </div>
      <ul class="list-disc pl-4 text-muted">
        <li v-for="fact in joint.facts" :key="fact">{{ fact }}</li>
      </ul>
      <button type="button" class="action" @click="insert(close)">Insert something here…</button>
    </PopoverPanel>
  </Popover>
</template>
