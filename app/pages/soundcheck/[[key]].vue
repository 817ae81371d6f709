<script setup lang="ts">
import { definePageMeta } from '#imports'
import SoundcheckView from '~/features/soundcheck/SoundcheckView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'soundcheck' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('soundcheck')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><SoundcheckView /></SessionPlace>
</template>
