<script setup lang="ts">
import { definePageMeta } from '#imports'
import TrainerView from '~/components/trainer/TrainerView.vue'
import SessionPlace from '~/components/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'trainer' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('trainer')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><TrainerView /></SessionPlace>
</template>
