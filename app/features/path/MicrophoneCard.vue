<script setup lang="ts">
import type { ResolvedMicrophone } from '#core/gear/stage'
import GearCard from './GearCard.vue'

defineProps<{ stage: ResolvedMicrophone }>()
</script>

<template>
  <GearCard :stage="stage">
    <p v-if="stage.gear.pattern === undefined" class="mt-1 text-xs text-muted">
      Without a pattern it counts as omni: the cautious case for the room’s noise.
    </p>
  </GearCard>
</template>
