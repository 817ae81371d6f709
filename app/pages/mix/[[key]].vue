<script setup lang="ts">
import { definePageMeta } from '#imports'
import MixView from '~/features/mix/MixView.vue'
import SessionPlace from '~/shell/SessionPlace.vue'
import { useSessionRoute } from '~/composables/use-session-route'

definePageMeta({ key: 'mix' })
defineProps<{ startNew: () => void; importFile: () => void }>()
const { shown, again } = useSessionRoute('mix')
</script>

<template>
  <SessionPlace :shown="shown" @again="again"><MixView /></SessionPlace>
</template>
