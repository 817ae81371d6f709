<script setup lang="ts">
import { useExplaining } from '~/composables/use-explaining'

/** A figure that tells, when it is pressed, what it is made of. */
defineProps<{ figure: string; stage?: string; strip?: string; name: string }>()
const { explain } = useExplaining()
</script>

<template>
  <button
    type="button"
    class="-my-1 min-h-0 min-w-6 py-1 font-[inherit] decoration-dotted underline-offset-3 hover:underline"
    :aria-label="`${name}: what it is made of`"
    :data-explain="`${stage ?? ''}.${figure}`"
    @click.stop="explain(figure, stage, strip)"
  >
    <slot />
  </button>
</template>
