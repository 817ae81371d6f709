<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AnalogueInput, AudioInterface, InterfaceOutput } from '#core/gear'
import { inputSpecs, latencySpecs, outputSpecs } from '#core/gear'
import { withInput, withLatency } from '#core/edits'
import NumberInput from '~/shared/fields/NumberInput.vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import GainMap from '~/shared/gear/GainMap.vue'
import InputTable from '~/shared/gear/InputTable.vue'
import KnobTable from '~/shared/gear/KnobTable.vue'
import PlugFields from '~/shared/gear/PlugFields.vue'
import SpecTable from './SpecTable.vue'

/** An interface of the shelf: its delays, its inputs at a glance, and one port at a time in full. */
const props = defineProps<{
  unit: AudioInterface
  edit: (change: (unit: AudioInterface) => AudioInterface) => string | null
}>()

const ports = computed(() => [
  ...props.unit.inputs.map((each) => ({ value: `in ${each.id}`, text: `input ${each.id}, ${each.type}` })),
  ...props.unit.outputs.map((each) => ({ value: `out ${each.id}`, text: `output ${each.id}, ${each.type}` })),
])
const port = ref(ports.value[0]?.value ?? '')
const chosen = computed(() => {
  const [side, id] = port.value.split(' ')
  const input = side === 'in' ? props.unit.inputs.find((each) => each.id === id) : undefined
  const output = side === 'out' ? props.unit.outputs.find((each) => each.id === id) : undefined
  return { id, input: input && input.type !== 'digital' ? input : undefined, output }
})
const editInput = (change: (input: AnalogueInput) => AnalogueInput) =>
  props.edit((unit) => withInput(unit, chosen.value.id ?? '', change))
const editOutput = (change: (output: InterfaceOutput) => InterfaceOutput) =>
  props.edit((unit) => ({
    ...unit,
    outputs: unit.outputs.map((each) => (each.id === chosen.value.id ? change(each) : each)),
  }))
const latencyKeys = Object.keys(latencySpecs) as (keyof typeof latencySpecs)[]
const setLatency = (key: keyof typeof latencySpecs) => (value: number | undefined) =>
  props.edit((unit) => withLatency(unit, key, value))
</script>

<template>
  <p class="flex flex-wrap gap-x-4 gap-y-1 py-1">
    <span v-for="key in latencyKeys" :key="key"
      ><span class="text-muted">{{ latencySpecs[key].label }} </span
      ><NumberInput
        :value="unit.latency?.[key] ?? latencySpecs[key].initial"
        :field="latencySpecs[key]"
        :commit="setLatency(key)"
    /></span>
  </p>
  <InputTable class="mt-2" :unit="unit" :edit="(_, change) => edit(change)" />
  <p class="mt-2">
    <SelectInput
      class="font-semibold"
      :value="port"
      label="Port"
      :options="ports"
      :commit="
        (value) => {
          port = value
          return null
        }
      "
    />
  </p>
  <template v-if="chosen.input">
    <PlugFields :plug="chosen.input.plug" name="Socket" :edit="(plug) => editInput((each) => ({ ...each, plug }))" />
    <SpecTable :owner="chosen.input" :fields="inputSpecs" :edit="editInput" />
    <GainMap class="mt-3 max-w-2xl" :input="chosen.input" :name="`input ${chosen.input.id}`" />
    <KnobTable
      :knob="chosen.input.knob"
      :lowest="chosen.input.specs.gainMin"
      :edit="(knob) => editInput((each) => ({ ...each, knob }))"
    />
  </template>
  <SpecTable v-else-if="chosen.output" :owner="chosen.output" :fields="outputSpecs" :edit="editOutput" />
  <p v-else class="text-muted">A digital input passes samples unchanged: it has no figures of its own.</p>
</template>
