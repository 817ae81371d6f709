<script setup lang="ts">
import { definePageMeta } from '#imports'
import BenchView from '~/features/bench/BenchView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'bench' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('bench')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><BenchView /></SessionPlace>
</template>
