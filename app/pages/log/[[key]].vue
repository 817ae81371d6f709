<script setup lang="ts">
import { definePageMeta } from '#imports'
import LogView from '~/features/log/LogView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'log' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('log')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><LogView /></SessionPlace>
</template>
