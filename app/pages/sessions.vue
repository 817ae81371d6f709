<script setup lang="ts">
import SessionsView from '~/features/sessions/SessionsView.vue'

defineProps<{ startNew: () => void; importFile: () => void }>()
</script>

<template><SessionsView @start-new="startNew" @import-file="importFile" /></template>
