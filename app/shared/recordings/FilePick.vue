<script setup lang="ts">
import { ref } from 'vue'

/** One recording or several, chosen or dropped here; what is dropped on this place goes nowhere else. */
const props = defineProps<{ label: string; several?: boolean }>()
const emit = defineEmits<{ files: [files: File[]] }>()
const over = ref(false)
function take(list: FileList | null | undefined) {
  const files = [...(list ?? [])]
  if (files.length > 0) emit('files', props.several ? files : files.slice(0, 1))
}
function drop(event: DragEvent) {
  over.value = false
  take(event.dataTransfer?.files)
}
/** The field is emptied, so that the same file can be chosen once more. */
function choose(event: Event) {
  const input = event.target as HTMLInputElement
  take(input.files)
  input.value = ''
}
</script>

<template>
  <label
    class="flex cursor-pointer items-center justify-center border border-dashed border-rule bg-sheet px-3 py-3 text-center focus-within:border-change"
    :class="{ 'border-change! bg-change-soft!': over }"
    @dragover.prevent.stop="over = true"
    @dragleave="over = false"
    @drop.prevent.stop="drop"
  >
    <span
      ><span class="action">{{ label }}</span> or drop {{ several ? 'them' : 'it' }} here: WAV, any length</span
    >
    <input
      type="file"
      accept=".wav,.wave,audio/wav"
      class="sr-only"
      :multiple="several"
      :aria-label="label"
      @change="choose"
    />
  </label>
</template>
