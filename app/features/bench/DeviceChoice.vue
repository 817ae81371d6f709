<script setup lang="ts">
import type { LiveDevice } from '~/audio/live-input'

/** Through which output is played and which input recorded; a list that is empty is not asked for. */
defineProps<{ outputs: readonly LiveDevice[]; inputs: readonly LiveDevice[] }>()
const output = defineModel<string | null>('output', { required: true })
const input = defineModel<string | null>('input', { required: true })
</script>

<template>
  <label v-if="outputs.length > 0"
    >out
    <select v-model="output" class="max-w-44 border-b border-dotted border-rule bg-sheet" aria-label="Output">
      <option :value="null">the system’s output</option>
      <option v-for="each in outputs" :key="each.id" :value="each.id">{{ each.name }}</option>
    </select></label
  >
  <label v-if="inputs.length > 0"
    >in
    <select v-model="input" class="max-w-44 border-b border-dotted border-rule bg-sheet" aria-label="Input">
      <option :value="null">the default input</option>
      <option v-for="each in inputs" :key="each.id" :value="each.id">{{ each.name }}</option>
    </select></label
  >
</template>
