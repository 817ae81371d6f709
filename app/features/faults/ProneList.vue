<script setup lang="ts">
import { symptoms } from '#core/diagnosis/symptom'
import { useFaultsStore } from './faults-store'

/** Before anything is complained of: what this chain invites, each a press away from its search. */
const faults = useFaultsStore()
</script>

<template>
  <div data-prone>
    <p v-if="faults.prone.length === 0 && !faults.working" class="mt-2">
      Nothing in this session points to a particular fault. Choose the symptom that you hear.
    </p>
    <template v-else-if="faults.prone.length > 0">
      <p class="mt-2 font-semibold">What this chain is prone to</p>
      <ol class="mt-1 space-y-2">
        <li
          v-for="each in faults.prone"
          :key="each.id"
          class="border-l-3 pl-2"
          :class="each.present ? 'border-ceiling' : 'border-rule'"
          :data-prone-cause="each.id"
        >
          <p class="flex flex-wrap items-baseline justify-between gap-x-3">
            <span
              ><strong class="font-semibold">{{ each.title }}</strong
              ><span v-if="each.present" class="text-ceiling"> – set so now</span></span
            >
            <button type="button" class="action" @click="faults.toggle(each.symptom)">
              {{ symptoms[each.symptom].title }}?
            </button>
          </p>
          <p v-for="words in each.says" :key="words" class="text-muted">{{ words }}</p>
        </li>
      </ol>
    </template>
    <p class="mt-4 max-w-prose text-muted">
      Each cause is weighed by what this session says of it – levels, shares of the noise, times, switches – and by what
      you check. How often each is to blame, and how well it shows, is common practice; the figures are computed from
      the chain.
    </p>
  </div>
</template>
