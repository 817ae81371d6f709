<script setup lang="ts">
import { ref } from 'vue'

/** A recording, chosen or dropped here; what is dropped on this place goes nowhere else. */
defineProps<{ label: string }>()
const emit = defineEmits<{ file: [file: File] }>()
const over = ref(false)
function take(files: FileList | null | undefined) {
  const file = files?.[0]
  if (file) emit('file', file)
}
</script>

<template>
  <label class="flex cursor-pointer items-center justify-center border border-dashed border-rule bg-sheet px-3 py-4 text-center focus-within:border-change" :class="{ 'border-change! bg-change-soft!': over }" @dragover.prevent.stop="over = true" @dragleave="over = false" @drop.prevent.stop="over = false; take($event.dataTransfer?.files)">
    <span><span class="action">{{ label }}</span> or drop it here: WAV, any length</span>
    <input type="file" accept=".wav,.wave,audio/wav" class="sr-only" :aria-label="label" @change="take(($event.target as HTMLInputElement).files); ($event.target as HTMLInputElement).value = ''">
  </label>
</template>
