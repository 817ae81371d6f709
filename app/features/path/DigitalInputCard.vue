<script setup lang="ts">
import type { ResolvedDigitalInput } from '#core/gear'
import { computed } from 'vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { usePortChange } from './use-port-change'

/** A unit’s digital input: which one, and what the recorder calls it. */
const props = defineProps<{ stage: ResolvedDigitalInput }>()
const { ports, setPort } = usePortChange(() => props.stage)
const number = computed(() => props.stage.gear.inputs.findIndex((input) => input.id === props.stage.input.id) + 1)
</script>

<template>
  <SelectInput :value="stage.input.id" label="Input" :options="ports" :commit="setPort" />
  <p class="mt-1">
    The recorder counts it as input <span class="figure">{{ number }}</span> of {{ stage.gear.inputs.length }}.
  </p>
  <p class="text-muted">
    Samples come in unchanged: no gain, no converter. One unit gives the clock, the other follows.
  </p>
</template>
