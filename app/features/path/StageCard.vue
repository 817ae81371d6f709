<script setup lang="ts">
import { provide } from 'vue'
import type { ResolvedStage } from '#core/gear/stage'
import TextInput from '~/shared/fields/TextInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { GAINS_ELSEWHERE } from './gains-elsewhere'
import SharedBox from './SharedBox.vue'
import StageBody from './StageBody.vue'
import StageMenu from './StageMenu.vue'
import { stageTitle } from './stage-title'

/** A stage in full: what it is, how it is set, what is known of it. A wide one stands below columns that have its gains. */
const props = defineProps<{ stage: ResolvedStage; number: number; wide?: boolean }>()
provide(GAINS_ELSEWHERE, props.wide)
const edit = useStageEdit()
const title = () => stageTitle(props.stage)
const rename = (name: string) => edit.box(props.stage.id, props.stage.gear.id)('Name', (gear) => ({ ...gear, name }))
</script>

<template>
  <section
    :id="`stage-${stage.id}`"
    class="stage-card plate min-w-0 px-3 py-2"
    :aria-label="`${title()}: ${stage.gear.name}`"
  >
    <div class="flex items-start justify-between gap-1 text-xs text-muted" data-drag>
      <p class="cursor-grab">
        {{ number }} {{ title() }}<strong v-if="stage.driven" class="text-ink"> · driven</strong>
      </p>
      <StageMenu :stage="stage" />
    </div>
    <h3 class="mb-1 text-[15px]">
      <TextInput
        class="w-full"
        :value="stage.gear.name"
        :label="`Name of the ${title().toLowerCase()}`"
        :commit="rename"
      />
    </h3>
    <SharedBox :stage="stage" />
    <div :class="{ 'columns-2 gap-8 *:break-inside-avoid rail:columns-3': wide }"><StageBody :stage="stage" /></div>
  </section>
</template>
