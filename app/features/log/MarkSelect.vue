<script setup lang="ts">
import { format, parseISO } from 'date-fns'
import { computed } from 'vue'
import SelectInput from '~/shared/fields/SelectInput.vue'
import { useLogViewStore } from './log-view'

/** Choice of a mark, or of the session as it stands. */
const props = defineProps<{ value: string | null; label: string; now?: boolean }>()
const emit = defineEmits<{ choose: [id: string | null] }>()
const view = useLogViewStore()
const NOW = 'now'
const options = computed(() => [
  ...(props.now ? [{ value: NOW, text: 'current settings' }] : []),
  ...view.marks.map(({ id, name, at }) => ({ value: id, text: `${name} (${format(parseISO(at), 'd MMM yyyy')})` })),
])
function choose(value: string): null {
  emit('choose', value === NOW ? null : value)
  return null
}
</script>

<template>
  <SelectInput :value="value ?? NOW" :label="label" :options="options" :commit="choose" />
</template>
