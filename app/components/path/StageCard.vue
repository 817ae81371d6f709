<script setup lang="ts">
import type { ResolvedStage } from '#core/chain/resolve'
import TextInput from '~/components/fields/TextInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import InputCard from './InputCard.vue'
import MicrophoneCard from './MicrophoneCard.vue'
import SourceCard from './SourceCard.vue'

/** A stage under its column: what it is, how it is set, what is known of it. */
const props = defineProps<{ stage: ResolvedStage, planned: number | null, number: number }>()
const edit = useStageEdit()

const words = { 'sound-source': 'Source', 'microphone': 'Microphone', 'interface': 'Interface input' } as const
const rename = (name: string) => edit.gear(props.stage.gear.id, props.stage.kind)('Name', (gear) => ({ ...gear, name }))
</script>

<template>
  <section :id="`stage-${stage.id}`" class="plate min-w-0 px-3 py-2" :aria-label="`${words[stage.kind]}: ${stage.gear.name}`">
    <p class="text-xs text-muted">{{ number }} {{ words[stage.kind] }}</p>
    <h3 class="mb-1 text-[15px]"><TextInput class="w-full" :value="stage.gear.name" :label="`Name of the ${words[stage.kind].toLowerCase()}`" :commit="rename" /></h3>
    <SourceCard v-if="stage.kind === 'sound-source'" :stage="stage" />
    <MicrophoneCard v-else-if="stage.kind === 'microphone'" :stage="stage" />
    <InputCard v-else :stage="stage" :planned="planned" />
  </section>
</template>
