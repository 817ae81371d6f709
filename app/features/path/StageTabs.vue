<script setup lang="ts">
import type { ResolvedStage } from '#core/gear/stage'
import { useStripStages } from '~/composables/use-strip-stages'
import { useViewStore } from '~/stores/view'
import JointMark from './JointMark.vue'
import { stageTitle } from './stage-title'

/** The stages of a strip on a narrow screen: their names in a row that wraps, with the joints between; one is shown in full below. */
defineProps<{ selected: ResolvedStage }>()
const view = useViewStore()
const { stages, joints } = useStripStages()
</script>

<template>
  <ol class="mt-2 flex flex-wrap items-center gap-1" aria-label="Stages">
    <li v-for="(stage, i) in stages" :key="stage.id" class="flex items-center gap-1">
      <JointMark v-if="joints[i - 1]" :joint="joints[i - 1]!" :number="i" />
      <button
        type="button"
        class="border px-2 py-1 text-left"
        :class="stage.id === selected.id ? 'border-ink bg-ink text-paper' : 'border-rule bg-sheet'"
        :aria-pressed="stage.id === selected.id"
        :title="stage.gear.name"
        data-stage-tab
        @click="view.selectStage(stage.id)"
      >
        {{ i + 1 }} {{ stageTitle(stage) }}
      </button>
    </li>
  </ol>
</template>
