<script setup lang="ts">
import type { Choice } from '#core/gear'
import SelectInput from '~/shared/fields/SelectInput.vue'
import SetRow from '~/shared/fields/SetRow.vue'

/** A property of a device that is chosen from a few, as a line of its card. */
defineProps<{ choice: Choice; commit: (value: string) => string | null }>()
</script>

<template>
  <SetRow :label="choice.label">
    <SelectInput :value="choice.value" :label="choice.label" :options="choice.options" :commit="commit" />
  </SetRow>
</template>
