<script setup lang="ts">
import { computed } from 'vue'
import type { Broadcast } from '#core/measure/wav/broadcast'
import { formatDecimal } from '#core/units'

/** What the file's broadcast extension says of the recording. */
const props = defineProps<{ broadcast: Broadcast; sampleRate: number }>()
const words = computed(() =>
  [
    props.broadcast.description,
    props.broadcast.originator && `by ${props.broadcast.originator}`,
    props.broadcast.reference && `reference ${props.broadcast.reference}`,
    [props.broadcast.date, props.broadcast.time].filter(Boolean).join(' '),
    props.broadcast.timeReference > 0
      ? `begins ${formatDecimal(props.broadcast.timeReference / props.sampleRate, 2)} s after midnight`
      : '',
    props.broadcast.history,
  ]
    .filter(Boolean)
    .join('; '),
)
</script>

<template>
  <p class="text-muted" data-broadcast>
    Broadcast extension, version {{ broadcast.version }}{{ words ? `: ${words}` : ', without words' }}.
  </p>
</template>
