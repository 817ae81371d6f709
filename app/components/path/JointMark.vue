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
    return { word: 'needs attention', icon: TriangleAlert, tone: 'text-ceiling border-ceiling' }
  return { word: 'fits', icon: Check, tone: 'text-change border-rule' }
})
function insert(close: () => void) {
  close()
  chain.openInsert(props.number)
}
</script>

<template>
  <Popover class="print:hidden">
    <PopoverButton
      ref="anchor"
      class="grid size-6 place-items-center pointer-coarse:size-11"
      :aria-label="`Joint ${number}: ${state.word}`"
      :data-joint="joint.severity ?? 'fits'"
      ><span class="grid size-5 place-items-center rounded-full border bg-sheet" :class="state.tone"
        ><component :is="state.icon" class="size-3" aria-hidden="true" /></span
    ></PopoverButton>
    <PopoverPanel
      ref="panel"
      v-slot="{ close }"
      :style="floatingStyles"
      class="plate z-40 w-80 max-w-[92vw] space-y-1.5 overflow-y-auto p-3 text-left shadow-lg"
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
