<script setup lang="ts">
import type { Feed } from '#core/model'

/** Before or after the fader: pressed, the other. */
defineProps<{ tap: Feed['tap']; name: string }>()
const emit = defineEmits<{ change: [tap: Feed['tap']] }>()
const TAPS = { post: 'after the fader', pre: 'before the fader' } as const
</script>

<template>
  <button
    type="button"
    class="min-h-6 border border-rule px-1 text-xs pointer-coarse:min-h-11 pointer-coarse:min-w-11"
    :aria-label="`${name}: taken ${TAPS[tap]}. Change`"
    :title="`Taken ${TAPS[tap]}. Press to change`"
    @click="emit('change', tap === 'pre' ? 'post' : 'pre')"
  >
    {{ tap }}
  </button>
</template>
