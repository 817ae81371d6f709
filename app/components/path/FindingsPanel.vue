<script setup lang="ts">
import { CircleAlert, Info, OctagonX } from '@lucide/vue'
import { useViewStore } from '~/stores/view'
import FindingAction from './FindingAction.vue'

/** What is to be seen to on this strip, the gravest first, each with what to do. */
const view = useViewStore()

const kinds = {
  stop: { word: 'Stop', icon: OctagonX, tone: 'border-l-4 border-l-ceiling' },
  caution: { word: 'See to', icon: CircleAlert, tone: 'border-l-4 border-l-rule' },
  note: { word: 'Note', icon: Info, tone: 'border-l border-l-line' },
} as const
</script>

<template>
  <section aria-labelledby="findings-title" class="flex min-h-0 flex-col">
    <h2 id="findings-title" class="border-b border-ink pb-0.5">To see to</h2>
    <p v-if="view.evaluated?.findings.length === 0" class="mt-1 text-muted">
      Nothing. Play the loudest passage once more and begin.
    </p>
    <ul v-else class="mt-1.5 space-y-1.5">
      <!-- A note without anything to press is one line until it is asked for. -->
      <li
        v-for="finding in view.evaluated?.findings"
        :key="finding.code + finding.message"
        class="plate px-2 py-1"
        :class="kinds[finding.severity].tone"
        :data-finding="finding.code"
      >
        <details :open="finding.severity !== 'note' || finding.changes !== undefined" class="group">
          <summary class="cursor-pointer list-none truncate group-open:whitespace-normal">
            <component
              :is="kinds[finding.severity].icon"
              class="mr-1 inline size-3.5 align-[-2px]"
              aria-hidden="true"
            /><strong>{{ kinds[finding.severity].word }}.</strong> {{ finding.message }}
          </summary>
          <p class="text-muted">{{ finding.action }} <FindingAction :finding="finding" /></p>
        </details>
      </li>
    </ul>
  </section>
</template>
