<script setup lang="ts">
import type { ResolvedMicrophone } from '#core/chain/resolve'
import GearCard from './GearCard.vue'

defineProps<{ stage: ResolvedMicrophone }>()
</script>

<template>
  <GearCard :stage="stage" />
  <p v-if="stage.gear.pattern === undefined" class="mt-1 text-xs text-muted">
    Without a pattern it counts as omni: the cautious case for the room’s noise.
  </p>
  <p v-if="stage.specs.selfNoise === undefined" class="mt-1 text-xs text-muted">
    Passive: its impedance makes its noise.
  </p>
</template>
