<script setup lang="ts">
import type { NuxtError } from '#app'
import { clearError } from '#imports'

/** Where a page cannot be shown at all: what it is, that nothing is lost, and the way back. */
defineProps<{ error: NuxtError }>()
const back = () => clearError({ redirect: '/' })
</script>

<template>
  <main class="mx-auto max-w-2xl space-y-3 p-6" data-error>
    <h1 class="text-lg">
      {{ error.statusCode === 404 ? 'There is no page at this address' : 'This page could not be shown' }}
    </h1>
    <p>Everything that was stored is still there.</p>
    <p v-if="error.statusCode !== 404" class="text-muted">{{ error.message }}</p>
    <button type="button" class="push-main" @click="back">Back to the session</button>
  </main>
</template>
