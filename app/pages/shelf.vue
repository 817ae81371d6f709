<script setup lang="ts">
import ShelfView from '~/features/gear/ShelfView.vue'

defineProps<{ startNew: () => void; importFile: () => void }>()
</script>

<template><ShelfView /></template>
