<script setup lang="ts">
import { NuxtPage } from '#components'
import { useHead } from '#imports'
import { useSessionStore } from '~/stores/session'
import AppShell from '~/shell/AppShell.vue'

const store = useSessionStore()
useHead({ title: () => (store.session ? `${store.session.name} – Remetra` : 'Remetra') })
</script>

<template>
  <AppShell v-slot="{ startNew, importFile }">
    <NuxtPage :start-new="startNew" :import-file="importFile" />
  </AppShell>
</template>
