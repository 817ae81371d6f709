<script setup lang="ts">
import type { ResolvedStage } from '#core/gear/stage'
import { cardOf } from './stage-cards'

/** What a stage is set to and what is known of it. */
defineProps<{ stage: ResolvedStage }>()
</script>

<template>
  <component :is="cardOf(stage)" :stage="stage" />
</template>
