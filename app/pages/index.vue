<script setup lang="ts">
import { onMounted } from 'vue'
import { useRouter } from '#imports'
import { useLibraryStore } from '~/stores/library'

const library = useLibraryStore()
const router = useRouter()
onMounted(async () => {
  const key = await library.landing()
  await router.replace(key ? `/path/${key}` : '/sessions')
})
</script>

<template>
  <p class="p-6 text-muted" role="status">Opening…</p>
</template>
