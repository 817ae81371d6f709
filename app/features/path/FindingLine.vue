<script setup lang="ts">
import { ChevronRight, CircleAlert, Info, OctagonX } from '@lucide/vue'
import { ref, useId } from 'vue'
import type { Finding } from '#core/checks/finding'
import { findingTitles } from '#core/checks/finding-titles'
import { NuxtLink } from '#components'
import { useRoute } from '#imports'
import { FINDINGS_WITHOUT_CAUSE } from '#core/diagnosis/findings-without-cause'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import FindingAction from './FindingAction.vue'

/** A finding in one line with its action; pressed, the figures and what to do. */
const props = defineProps<{ finding: Finding }>()
const id = useId()
/** A cause in Faults leads here. */
const open = ref(useRoute().query.finding === props.finding.code)
const store = useSessionStore()
const view = useViewStore()
const hasCause = !FINDINGS_WITHOUT_CAUSE.some((code) => code === props.finding.code)

const KINDS = {
  stop: { word: 'Stop', icon: OctagonX, tone: 'border-l-4 border-l-ceiling' },
  caution: { word: 'See to', icon: CircleAlert, tone: 'border-l-4 border-l-rule' },
  note: { word: 'Note', icon: Info, tone: 'border-l border-l-line' },
} as const
const kind = KINDS[props.finding.severity]
const title = findingTitles[props.finding.code]
</script>

<template>
  <li class="plate px-2 py-0.5" :class="kind.tone" :data-finding="finding.code">
    <div class="flex items-baseline gap-2">
      <button
        type="button"
        class="flex min-w-0 grow items-baseline gap-1 py-0.5 text-left"
        :aria-expanded="open"
        :aria-controls="id"
        @click="open = !open"
      >
        <component :is="kind.icon" class="size-3.5 shrink-0 self-center" aria-hidden="true" />
        <span class="min-w-0 grow"
          ><strong>{{ kind.word }}:</strong> {{ title }}</span
        >
        <ChevronRight class="size-3.5 shrink-0 self-center" :class="{ 'rotate-90': open }" aria-hidden="true" />
      </button>
      <FindingAction :finding="finding" class="shrink-0" />
    </div>
    <div :id="id" class="pb-1" :hidden="!open">
      <p>{{ finding.message }}</p>
      <p v-if="open" class="text-muted">{{ finding.action }}</p>
      <NuxtLink
        v-if="open && hasCause"
        class="action"
        :to="{ path: `/faults/${store.key}`, query: { strip: view.strip?.id, finding: finding.code } }"
        data-to-cause
        >Its cause in Faults</NuxtLink
      >
    </div>
  </li>
</template>
