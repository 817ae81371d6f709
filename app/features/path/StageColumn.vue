<script setup lang="ts">
import type { ResolvedStage } from '#core/gear/stage'
import OwnTask from '~/shared/ui/OwnTask.vue'
import StageGains from './StageGains.vue'
import { stageTitle } from './stage-title'

/** A stage of a long strip under its column: its name and its gains. Pressing it shows the rest below. */
defineProps<{ stage: ResolvedStage; number: number; selected: boolean }>()
const emit = defineEmits<{ select: [] }>()
</script>

<template>
  <section
    class="plate min-w-0 px-1.5 py-1"
    :class="{ 'border-change! bg-change-soft!': selected }"
    :aria-label="`${stageTitle(stage)}: ${stage.gear.name}, short`"
  >
    <button type="button" class="block w-full text-left" :aria-expanded="selected" data-drag @click="emit('select')">
      <span class="block truncate text-[11px] text-muted">{{ number }} {{ stageTitle(stage) }}</span>
      <span class="line-clamp-2 min-h-[2.3em] text-[12px] leading-tight font-semibold" :title="stage.gear.name">{{
        stage.gear.name
      }}</span>
    </button>
    <OwnTask><StageGains :stage="stage" narrow /></OwnTask>
  </section>
</template>
