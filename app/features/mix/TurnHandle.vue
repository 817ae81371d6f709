<script setup lang="ts">
import { MoveVertical } from '@lucide/vue'
import TurnSlider from '~/shared/fields/TurnSlider.vue'
import type { Turned } from '~/composables/turned'

/** A handle for something whose number stands beside it. */
defineProps<{ control: Turned; name: string }>()
/** px of a decibel: fine enough for a tenth, far enough for a range. */
const PER_DB = 4
</script>

<template>
  <TurnSlider class="icon-button" :control="control" :pixels-per-db="PER_DB" :name="name" @keydown.stop>
    <MoveVertical class="size-3.5" aria-hidden="true" />
  </TurnSlider>
</template>
