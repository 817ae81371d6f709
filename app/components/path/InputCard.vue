<script setup lang="ts">
import { lateComponent } from '~/components/shell/late-component'
import { computed, ref } from 'vue'
import { fullScaleAt } from '#core/chain/input-gain'
import type { ResolvedInput } from '#core/chain/resolve'
import type { Specified } from '#core/session'
import { inputSpecs } from '#core/session'
import { formatSigned } from '#core/units'
import SelectInput from '~/components/fields/SelectInput.vue'
import SpecRow from '~/components/fields/SpecRow.vue'
import { usePortChange } from '~/composables/use-port-change'
import { useStageEdit } from '~/composables/use-stage-edit'
import StageGains from './StageGains.vue'
import StageSwitches from './StageSwitches.vue'

const UnitDialog = lateComponent(() => import('./UnitDialog.vue'))

const props = defineProps<{ stage: ResolvedInput }>()
const edit = useStageEdit()
const { ports, setPort } = usePortChange(() => props.stage)
const unitOpen = ref(false)
const fullScale = computed(() => {
  const { specs, gain, pad } = props.stage
  return fullScaleAt(specs, gain, pad ? specs.pad : 0)
})
const weightings = [
  { value: 'A', text: 'A' },
  { value: 'Z', text: 'Z' },
] as const

const editInput = (label: string, change: <T extends Specified>(input: T) => T) =>
  edit.input(props.stage.gear.id, props.stage.input.id)(label, change)
const setWeighting = (einWeighting: 'A' | 'Z') =>
  edit.input(props.stage.gear.id, props.stage.input.id)('EIN weighting', (input) => ({
    ...input,
    specs: { ...input.specs, einWeighting },
  }))
</script>

<template>
  <StageSwitches :stage="stage">
    <SelectInput :value="stage.input.id" label="Input" :options="ports" :commit="setPort" />
    <template #after
      ><button type="button" class="action ml-auto" @click="unitOpen = true">Interface settings…</button></template
    >
  </StageSwitches>
  <StageGains :stage="stage" />
  <p class="mb-1 text-muted">
    0 dBFS is at <span class="figure text-ink">{{ formatSigned(fullScale, 1) }}</span> dBu now.
  </p>

  <SpecRow :owner="stage.input" spec="fullScale" :field="inputSpecs.fullScale" :edit="editInput" />
  <SpecRow :owner="stage.input" spec="ein" :field="inputSpecs.ein" :edit="editInput">
    <SelectInput
      class="ml-1.5 text-xs text-ink"
      :value="stage.input.specs.einWeighting"
      label="EIN weighting"
      :options="weightings"
      :commit="setWeighting"
    />
  </SpecRow>
  <SpecRow
    v-for="key in ['einSource', 'dynamicRange', 'impedance', 'pad'] as const"
    :key="key"
    :owner="stage.input"
    :spec="key"
    :field="inputSpecs[key]"
    :edit="editInput"
  />
  <UnitDialog v-if="unitOpen" :unit="stage.gear" :input="stage.input" :gain="stage.gain" @close="unitOpen = false" />
</template>
