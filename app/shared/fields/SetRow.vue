<script setup lang="ts">
/** A line of a card: what it is on the left, its value on the right, where all values of the card end. */
defineProps<{ label: string; help?: string; strong?: boolean }>()
</script>

<template>
  <div class="card-row" :class="{ 'font-semibold': strong }">
    <span class="shrink-0" :class="{ 'text-muted': !strong }" :title="help">{{ label }}</span>
    <span class="value-column min-w-0 shrink!"><slot /></span>
  </div>
</template>
