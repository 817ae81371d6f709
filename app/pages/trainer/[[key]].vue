<script setup lang="ts">
import { definePageMeta } from '#imports'
import TrainerView from '~/features/trainer/TrainerView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'trainer' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('trainer')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><TrainerView /></SessionPlace>
</template>
