<script setup lang="ts">
import { OctagonX, Plus, TriangleAlert } from '@lucide/vue'
import { computed } from 'vue'
import { formatDecimal } from '#core/units'
import { useChainEdit } from '~/composables/use-chain-edit'
import { useInSlices } from '~/composables/use-in-slices'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The strips of the session, each with the headroom at its tightest place and whether something is to be seen to. */
const store = useSessionStore()
const view = useViewStore()
const chain = useChainEdit()

const strips = computed(() =>
  (store.session?.strips ?? []).map((strip, i) => {
    const evaluated = store.evaluation?.strips[i]
    const severity = evaluated?.findings[0]?.severity
    const pair = store.session?.pairs?.find((each) => each.left === strip.id || each.right === strip.id)
    return {
      ...strip,
      headroom: evaluated?.tightest?.headroom ?? null,
      mark:
        severity === 'stop'
          ? { icon: OctagonX, word: 'stop' }
          : severity === 'caution'
            ? { icon: TriangleAlert, word: 'needs attention' }
            : null,
      side: pair ? (pair.left === strip.id ? 'L' : 'R') : null,
    }
  }),
)
const shown = useInSlices(() => strips.value, 16)
</script>

<template>
  <nav class="flex min-h-0 flex-col border-t border-line pt-2" aria-label="Strips">
    <ul class="min-h-0 overflow-y-auto">
      <!-- Of 64 strips most are out of sight: the browser lays out and paints the ones that are not. -->
      <li
        v-for="strip in shown"
        :key="strip.id"
        class="[contain-intrinsic-size:auto_2.75rem] [content-visibility:auto]"
      >
        <button
          type="button"
          class="w-full border-l-3 border-transparent px-2 py-1 text-left text-muted hover:text-ink"
          :class="{ 'border-l-change! bg-sheet font-semibold text-ink': strip.id === view.strip?.id }"
          :aria-current="strip.id === view.strip?.id ? 'true' : undefined"
          @click="view.select(strip.id)"
        >
          <span class="block truncate" :title="strip.name"
            >{{ strip.name }}<span v-if="strip.side" class="figure font-normal"> {{ strip.side }}</span></span
          >
          <span class="flex items-center justify-between text-xs font-normal text-muted"
            ><span v-if="strip.headroom !== null"
              ><span class="figure">{{ formatDecimal(strip.headroom, 1) }}</span> dB</span
            ><span v-else>no limit</span
            ><component
              :is="strip.mark.icon"
              v-if="strip.mark"
              class="size-3.5 text-ceiling"
              :aria-label="strip.mark.word"
          /></span>
        </button>
      </li>
    </ul>
    <button type="button" class="action mt-0! shrink-0 px-2 py-1.5 text-left" @click="chain.addingStrip.value = true">
      <Plus class="inline size-3.5" aria-hidden="true" /> strip…
    </button>
  </nav>
</template>
