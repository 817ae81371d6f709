<script setup lang="ts">
import { follows } from '~/stores/second-screen'

/** Whether all devices stay on one strip and one step of the run sheet. */
</script>

<template>
  <label class="flex min-h-6 items-center gap-2 pointer-coarse:min-h-11">
    <input v-model="follows" type="checkbox" data-follow />
    Follow: all devices stay on one strip and step (F)
  </label>
</template>
