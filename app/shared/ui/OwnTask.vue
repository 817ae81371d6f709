<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'

/** Mounts what is in it in a task of its own, so that a place of many parts never holds the page up for all of them at once. */
const isDue = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
onMounted(() => {
  timer = setTimeout(() => {
    isDue.value = true
  })
})
onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <slot v-if="isDue" />
</template>
