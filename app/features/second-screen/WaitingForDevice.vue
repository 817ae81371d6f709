<script setup lang="ts">
import { computed } from 'vue'
import { secondScreen } from '~/stores/second-screen'

/** Why a session of another device is not there yet: nothing else stands on the page then to say it. */
const words = computed(() => {
  const { value } = secondScreen
  if (value?.state === 'lost')
    return `Not connected. ${value.why ?? 'The server is not reached.'} It is tried again by itself.`
  if (value?.state === 'alone')
    return 'Waiting for the device that keeps this session. Its page may be closed or asleep. If sharing was ended there, this link no longer works: scan the new code.'
  return 'Opening…'
})
</script>

<template>
  <p class="max-w-prose p-6 text-muted" role="status" data-waiting>{{ words }}</p>
</template>
