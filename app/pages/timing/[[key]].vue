<script setup lang="ts">
import { definePageMeta } from '#imports'
import TimingView from '~/features/timing/TimingView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'timing' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('timing')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><TimingView /></SessionPlace>
</template>
