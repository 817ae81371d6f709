<script setup lang="ts">
import { lateComponent } from '~/components/shell/late-component'

import type { ResolvedStage } from '#core/resolved/resolve'
import GearCard from './GearCard.vue'
import InputCard from './InputCard.vue'
import MicrophoneCard from './MicrophoneCard.vue'
import SourceCard from './SourceCard.vue'

const OutputCard = lateComponent(() => import('./OutputCard.vue'))
const DigitalInputCard = lateComponent(() => import('./DigitalInputCard.vue'))

/** What a stage is set to and what is known of it. */
defineProps<{ stage: ResolvedStage }>()
</script>

<template>
  <SourceCard v-if="stage.kind === 'sound-source'" :stage="stage" />
  <MicrophoneCard v-else-if="stage.kind === 'microphone'" :stage="stage" />
  <InputCard v-else-if="stage.kind === 'interface'" :stage="stage" />
  <DigitalInputCard v-else-if="stage.kind === 'digital-input'" :stage="stage" />
  <OutputCard v-else-if="stage.kind === 'interface-output'" :stage="stage" />
  <GearCard v-else :stage="stage" />
</template>
