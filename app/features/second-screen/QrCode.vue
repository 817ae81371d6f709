<script setup lang="ts">
import { encode } from 'uqr'
import { computed } from 'vue'

/** A link as a QR code (ISO/IEC 18004), dark on light in both themes, with the quiet zone that it needs. */
const props = defineProps<{ text: string; label: string }>()
const code = computed(() => encode(props.text, { ecc: 'M', border: 4 }))
const path = computed(() =>
  code.value.data.flatMap((row, y) => row.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : []))).join(''),
)
</script>

<template>
  <svg
    class="block w-full max-w-64 border border-rule bg-white"
    :viewBox="`0 0 ${code.size} ${code.size}`"
    role="img"
    :aria-label="label"
    shape-rendering="crispEdges"
    data-qr
  >
    <path fill="#000" :d="path" />
  </svg>
</template>
