<template><NuxtPage /></template>
<script setup lang="ts">
import { NuxtPage } from '#components'
</script>
