<script setup lang="ts">
import type { ResolvedOutput } from '#core/gear'
import { computed } from 'vue'
import { outputSpecs } from '#core/gear'
import { formatDecimal } from '#core/units'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useStageEdit } from '~/composables/use-stage-edit'
import { useViewStore } from '~/stores/view'

/** A unit’s output, where the host’s numbers come out as volts: which one, and what it gives. */
const props = defineProps<{ stage: ResolvedOutput }>()
const edit = useStageEdit()
const view = useViewStore()
const options = computed(() =>
  props.stage.gear.outputs
    .filter(({ type }) => type !== 'headphone')
    .map(({ id, type }) => ({ value: id, text: `${id}, ${type}` })),
)
const setPort = (port: string) =>
  edit.changes('Output', [{ do: 'port', strip: view.strip?.id ?? '', stage: props.stage.id, port }])
const specs = computed(() =>
  Object.entries(outputSpecs).flatMap(([key, field]) => {
    const value = (props.stage.specs as Record<string, number | undefined>)[key]
    return value === undefined ? [] : [{ key, field, value }]
  }),
)
</script>

<template>
  <SelectInput :value="stage.output.id" label="Output" :options="options" :commit="setPort" />
  <p v-for="{ key, field, value } in specs" :key="key" class="flex justify-between">
    <span class="text-muted">{{ field.label }}</span><span class="figure"
      >{{ formatDecimal(value, 1) }} {{ field.unit }}</span
    >
  </p>
  <p class="text-muted">Its figures are in the interface settings. It clips at 0 dBFS.</p>
</template>
