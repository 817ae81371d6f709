<script setup lang="ts">
import type { ResolvedMicrophone } from '#core/chain/resolve'
import type { Microphone } from '#core/session'
import { microphoneSpecs } from '#core/session'
import SelectInput from '~/components/fields/SelectInput.vue'
import SpecRow from '~/components/fields/SpecRow.vue'
import { useStageEdit } from '~/composables/use-stage-edit'

const props = defineProps<{ stage: ResolvedMicrophone }>()
const edit = useStageEdit()

const principles = [
  { value: 'condenser', text: 'condenser' }, { value: 'moving-coil', text: 'moving coil' }, { value: 'ribbon', text: 'ribbon' },
] as const
const attitudes = [
  { value: 'needed', text: 'needs 48 V' }, { value: 'harmless', text: 'does not mind 48 V' }, { value: 'harmful', text: 'is harmed by 48 V' },
] as const

const editGear = (label: string, change: <T extends Microphone>(gear: T) => T) =>
  edit.gear(props.stage.gear.id, 'microphone')(label, change)
const setPrinciple = (principle: Microphone['principle']) => editGear('Principle', (gear) => ({ ...gear, principle }))
const setPhantom = (phantom: Microphone['phantom']) => editGear('Phantom need', (gear) => ({ ...gear, phantom }))
</script>

<template>
  <div class="mb-1 flex flex-wrap gap-x-3">
    <SelectInput :value="stage.gear.principle" label="Principle" :options="principles" :commit="setPrinciple" />
    <SelectInput :value="stage.gear.phantom" label="Phantom power" :options="attitudes" :commit="setPhantom" />
  </div>
  <SpecRow v-for="(field, key) in microphoneSpecs" :key="key" :owner="stage.gear" :spec="key" :field="field" :edit="editGear" />
  <p v-if="stage.specs.selfNoise === undefined" class="mt-1 text-xs text-muted">Passive: its impedance makes its noise.</p>
</template>
