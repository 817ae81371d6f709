<script setup lang="ts">
import { computed } from 'vue'
import { analogueInputs, measurable } from '#core/bench/bench'
import type { Bench, Procedure } from '#core/bench/procedure'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useBenchStore } from '~/stores/bench'

/** What stands on the bench: the unit, its input, and what else the procedure needs. */
const props = defineProps<{ bench: Bench; procedure: Procedure }>()
const store = useBenchStore()
const options = (list: readonly { id: string; type: string }[]) =>
  list.map(({ id, type }) => ({ value: id, text: `${id}, ${type}` }))
const inputs = computed(() => analogueInputs(props.bench.unit))
const needs = (what: Procedure['needs'][number]) => props.procedure.needs.includes(what)
const choose = (part: Parameters<typeof store.choose>[0]) => {
  store.choose(part)
  return null
}
</script>

<template>
  <p class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
    <SelectInput
      :value="bench.unit.id"
      label="Unit on the bench"
      :options="measurable(bench.session).map(({ id, name }) => ({ value: id, text: name }))"
      :commit="(unit) => choose({ unit, input: undefined, second: undefined, output: undefined })"
    />
    <label v-if="needs('input')"
      >input
      <SelectInput
        :value="bench.input.id"
        label="Input"
        :options="options(inputs)"
        :commit="(input) => choose({ input })"
    /></label>
    <label v-if="needs('second') && bench.second"
      >against
      <SelectInput
        :value="bench.second.id"
        label="Second input"
        :options="options(inputs.filter(({ id }) => id !== bench.input.id))"
        :commit="(second) => choose({ second })"
    /></label>
    <label v-if="needs('output') && bench.output"
      >output
      <SelectInput
        :value="bench.output.id"
        label="Output"
        :options="options(bench.unit.outputs)"
        :commit="(output) => choose({ output })"
    /></label>
  </p>
</template>
