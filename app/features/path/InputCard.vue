<script setup lang="ts">
import type { ResolvedInput } from '#core/gear'
import { lateComponent } from '~/shared/ui/late-component'
import { computed, ref } from 'vue'
import { fullScaleAt } from '#core/gear/interface/input-gain'
import type { Specified } from '#core/edits'
import { inputSpecs, sheetLine } from '#core/gear'
import { formatSigned } from '#core/units'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SetRow from '~/shared/fields/SetRow.vue'
import SpecRow from '~/shared/fields/SpecRow.vue'
import { usePortChange } from './use-port-change'
import { useStageEdit } from '~/composables/use-stage-edit'
import DataSheet from './DataSheet.vue'
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

/** The range of its gain stands in the interface’s settings. */
const { gainMin: _min, gainMax: _max, gainStep: _step, ...sheet } = inputSpecs
const editInput = (label: string, change: <T extends Specified>(input: T) => T) =>
  edit.input(props.stage.gear.id, props.stage.input.id)(label, change)
const setWeighting = (einWeighting: 'A' | 'Z') =>
  edit.input(props.stage.gear.id, props.stage.input.id)('EIN weighting', (input) => ({
    ...input,
    specs: { ...input.specs, einWeighting },
  }))
</script>

<template>
  <SetRow label="Input">
    <SelectInput :value="stage.input.id" label="Input" :options="ports" :commit="setPort" />
  </SetRow>
  <StageSwitches :stage="stage" />
  <StageGains :stage="stage" />
  <p class="text-muted">
    0 dBFS is at <span class="figure text-ink">{{ formatSigned(fullScale, 1) }}</span> dBu now.
  </p>
  <DataSheet :kind="stage.kind" :line="sheetLine('interface', stage.input, sheet)">
    <SpecRow v-for="(field, key) in sheet" :key="key" :owner="stage.input" :spec="key" :field="field" :edit="editInput">
      <SelectInput
        v-if="key === 'ein'"
        class="ml-1.5 text-xs text-ink"
        :value="stage.input.specs.einWeighting"
        label="EIN weighting"
        :options="weightings"
        :commit="setWeighting"
      />
    </SpecRow>
  </DataSheet>
  <button type="button" class="action mt-1" @click="unitOpen = true">Interface settings…</button>
  <UnitDialog v-if="unitOpen" :unit="stage.gear" :input="stage.input" :gain="stage.gain" @close="unitOpen = false" />
</template>
