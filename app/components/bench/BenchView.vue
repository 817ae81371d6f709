<script setup lang="ts">
import LevelsBench from './LevelsBench.vue'
import RoundTripBench from './RoundTripBench.vue'
import TestSignals from './TestSignals.vue'

/** Measuring from recordings: signals to play, and what the recordings of them say. */
</script>

<template>
  <div class="grid min-h-0 grow grid-cols-2 gap-8 overflow-y-auto px-5 pt-2 pb-4" tabindex="0" aria-label="Bench">
    <div class="space-y-5"><TestSignals /><RoundTripBench /></div>
    <LevelsBench />
  </div>
</template>
