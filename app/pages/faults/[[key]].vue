<script setup lang="ts">
import { definePageMeta } from '#imports'
import FaultsView from '~/features/faults/FaultsView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'faults' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('faults')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><FaultsView /></SessionPlace>
</template>
