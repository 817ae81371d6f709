<script setup lang="ts">
import { computed } from 'vue'
import { saveFile } from '~/composables/file-access'
import type { Aside } from '~/stores/library'

/** What was found in the browser’s storage and is left as it is: named, with why, and to be saved as it was found. */
const props = defineProps<{ items: readonly Aside[]; of: string }>()
const REASONS: { why: Aside['why']; text: string }[] = [
  { why: 'newer', text: 'Written by a newer version of Remetra and left unchanged' },
  { why: 'damaged', text: 'Damaged and left out' },
  { why: 'replaced', text: 'Replaced, and kept as it was' },
]
const lines = computed(() =>
  REASONS.flatMap(({ why, text }) => {
    const names = props.items.filter((each) => each.why === why).map(({ name }) => name)
    if (names.length === 0) return []
    const more = names.length > 8 ? ` and ${names.length - 8} more` : ''
    return [`${text}: ${names.slice(0, 8).join(', ')}${more}.`]
  }),
)
const save = () =>
  saveFile(JSON.stringify(props.items, null, 2), 'application/json', `${props.of}-as-found.json`, 'remetra')
</script>

<template>
  <div v-if="items.length > 0" role="status" class="plate my-2 flex flex-wrap items-baseline gap-3 p-3" data-aside>
    <div class="grow">
      <p v-for="line in lines" :key="line">{{ line }}</p>
    </div>
    <button type="button" class="push" @click="save">Export as found</button>
    <slot />
  </div>
</template>
