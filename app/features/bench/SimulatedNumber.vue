<script setup lang="ts">
import { useBenchStore } from '~/stores/bench'

/** Which of the simulated interfaces is tried: each is another unit of the make. */
const store = useBenchStore()
</script>

<template>
  <label class="text-muted"
    >No.
    <select v-model="store.simulatedNumber" class="bg-sheet text-ink" aria-label="Which simulated interface">
      <option v-for="n in 9" :key="n" :value="n">{{ n }}</option>
    </select></label
  >
</template>
