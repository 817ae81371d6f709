<script setup lang="ts">
import { Check, OctagonX, TriangleAlert } from '@lucide/vue'
import { computed } from 'vue'
import type { Joint } from '#core/checks/describe-joint'
import PopUp from '~/shared/ui/PopUp.vue'
import { useChainEdit } from '~/composables/use-chain-edit'
import FindingAction from './FindingAction.vue'

/** A joint between two stages: whether it fits, in a shape and in words, with the fix; and the place to insert something. */
const props = defineProps<{ joint: Joint; number: number }>()
const chain = useChainEdit()

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
  <PopUp
    :label="`Joint ${number}: ${state.word}`"
    side="top"
    :data-joint="joint.severity ?? 'fits'"
    button-class="grid size-6 place-items-center pointer-coarse:size-11"
    panel-class="w-80 space-y-1.5 p-3"
  >
    <template #button>
      <span class="grid size-5 place-items-center rounded-full border bg-sheet" :class="state.tone"
        ><component :is="state.icon" class="size-3" aria-hidden="true"
      /></span>
    </template>
    <template #default="{ close }">
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
    </template>
  </PopUp>
</template>
