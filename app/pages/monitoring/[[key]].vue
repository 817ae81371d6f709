<script setup lang="ts">
import { definePageMeta } from '#imports'
import MonitoringView from '~/features/monitoring/MonitoringView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'monitoring' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('monitoring')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><MonitoringView /></SessionPlace>
</template>
